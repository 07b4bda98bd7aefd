// A field of a form that is typed, with its name above it and what is wrong with it below.

import { type Control, Controller, type FieldPath, type FieldValues } from 'react-hook-form'
import { TextInput } from '../kit/inputs'
import { Labelled } from '../kit/Labelled'

interface Props<V extends FieldValues> {
  control: Control<V>
  name: FieldPath<V>
  label: string
  serves?: string
  placeholder?: string
  mono?: boolean
  autoFocus?: boolean
}

export const TypedField = <V extends FieldValues>({
  control,
  name,
  label,
  serves,
  placeholder,
  mono,
  autoFocus,
}: Props<V>) => (
  <Controller
    control={control}
    name={name}
    render={({ field, fieldState }) => (
      <Labelled name={label} serves={serves} fault={fieldState.error?.message}>
        {(own) => (
          <TextInput
            {...own}
            mono={mono}
            autoFocus={autoFocus}
            value={field.value}
            placeholder={placeholder}
            onChange={field.onChange}
            onBlur={field.onBlur}
          />
        )}
      </Labelled>
    )}
  />
)
