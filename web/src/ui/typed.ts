import type { Directive } from 'vue'

type Field = HTMLInputElement | HTMLTextAreaElement
const typing = new WeakSet<Field>()

/**
 * What stands in a field: `v-typed="value"`. Where `:value` writes the old text back whenever anything near it is drawn
 * anew, this leaves alone what is being typed until it is committed or left.
 */
export const vTyped: Directive<Field, string | number | undefined> = {
  created(el, { value }) {
    el.value = String(value ?? '')
    el.addEventListener('input', () => typing.add(el))
    for (const over of ['change', 'blur']) el.addEventListener(over, () => typing.delete(el))
  },
  updated(el, { value }) {
    if (!typing.has(el)) el.value = String(value ?? '')
  },
}
