import { nextTick } from 'vue'

/** After a refusal the keyboard is in the field that it speaks of: the first one beside which a fault stands. */
export async function toFault(within: ParentNode = document): Promise<void> {
  await nextTick()
  const fault = within.querySelector('.fault')
  const field = fault?.closest('div, fieldset, form')?.querySelector<HTMLElement>('input, select, textarea')
  field?.focus()
}
