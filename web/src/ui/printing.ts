import { ref } from 'vue'

/** Whether the page is being printed: lists that show a part of what they have show all of it then. */
export const printing = ref(false)
addEventListener('beforeprint', () => (printing.value = true))
addEventListener('afterprint', () => (printing.value = false))
