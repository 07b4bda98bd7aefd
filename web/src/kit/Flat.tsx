// A button that looks like what it holds: a name, a line of a list, a leg.

import { ButtonBase, type ButtonBaseProps, styled } from '@mui/material'

export const Flat = styled((props: ButtonBaseProps) => <ButtonBase disableRipple {...props} />)({
  display: 'inline',
  justifyContent: 'normal',
  alignItems: 'normal',
  font: 'inherit',
  color: 'inherit',
  textAlign: 'left',
  userSelect: 'text',
})
