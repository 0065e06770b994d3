import { computed, type Ref } from 'vue'

/** Values as an address has them: nothing where they are what they are at first. */
export const numberText = (of: Ref<number | undefined>, plain?: number) =>
  computed<string | undefined>({
    get: () => (of.value === undefined || of.value === plain ? undefined : String(of.value)),
    set: (text) => {
      const n = Number(text)
      of.value = text && Number.isFinite(n) ? n : plain
    },
  })

export const flagText = (of: Ref<boolean>) =>
  computed<string | undefined>({
    get: () => (of.value ? 'yes' : undefined),
    set: (text) => (of.value = text === 'yes'),
  })

/** One of some words; another one in an address is as none. */
export const wordText = <T extends string>(of: Ref<T>, words: readonly T[], plain: T) =>
  computed<string | undefined>({
    get: () => (of.value === plain ? undefined : of.value),
    set: (text) => (of.value = words.find((w) => w === text) ?? plain),
  })

/** Texts in one, apart by tildes; a tilde within one is written otherwise. */
export const joined = (parts: readonly (string | number)[]) =>
  parts.map((p) => String(p).replaceAll('%', '%25').replaceAll('~', '%7E')).join('~')

/** What was joined; of nothing no text. */
export const parted = (text: string | undefined) =>
  text ? text.split('~').map((p) => p.replaceAll('%7E', '~').replaceAll('%25', '%')) : []

export const listText = (of: Ref<string[]>) =>
  computed<string | undefined>({
    get: () => joined(of.value) || undefined,
    set: (text) => (of.value = parted(text)),
  })

/** The id of a thing that there is: the first where none is named, and as it was where there is none of that name. */
export const idText = (of: Ref<string>, ids: () => string[]) =>
  computed<string | undefined>({
    get: () => (of.value === ids()[0] ? undefined : of.value || undefined),
    set: (text) => {
      if (!text) of.value = ids()[0] ?? ''
      else if (ids().includes(text)) of.value = text
    },
  })
