/** Said above what counts loads while the pins are not planned. */
export const NotPlanned = ({ so }: { so: string }) => (
  <p className="risks">The pins are not planned: what their lamps and loads draw is not all in this. {so}</p>
)
