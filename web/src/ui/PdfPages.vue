<script setup lang="ts">
import type { PDFDocumentProxy } from 'pdfjs-dist'
import { onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'

/** The pages of a PDF as they are printed. */
const props = defineProps<{ data: ArrayBuffer; label: string }>()
const emit = defineEmits<{ shown: [pages: number] }>()
const box = useTemplateRef('box')
const failure = ref('')
const document_ = shallowRef<PDFDocumentProxy>()
let newest = 0

async function show() {
  const mine = ++newest
  failure.value = ''
  try {
    const pdfjs = await import('pdfjs-dist')
    const worker = await import('pdfjs-dist/build/pdf.worker.min.mjs?url')
    pdfjs.GlobalWorkerOptions.workerSrc = worker.default
    const pdf = await pdfjs.getDocument({ data: props.data.slice(0) }).promise
    if (mine !== newest) return void pdf.loadingTask.destroy()
    void document_.value?.loadingTask.destroy()
    document_.value = pdf
    const pages: HTMLElement[] = []
    for (let n = 1; n <= pdf.numPages; n++) {
      const page = await pdf.getPage(n)
      const wide = Math.min(760, Math.max(280, (box.value?.clientWidth ?? 760) - 4))
      const plain = page.getViewport({ scale: 1 })
      const scale = wide / plain.width
      const viewport = page.getViewport({ scale: scale * Math.min(2, window.devicePixelRatio || 1) })
      const canvas = document.createElement('canvas')
      canvas.width = viewport.width
      canvas.height = viewport.height
      canvas.style.width = `${wide}px`
      canvas.style.height = `${plain.height * scale}px`
      canvas.setAttribute('role', 'img')
      const text = await page.getTextContent()
      const words = text.items.map((i) => ('str' in i ? i.str : '')).join(' ')
      canvas.setAttribute('aria-label', `Page ${n} of ${pdf.numPages}: ${words.slice(0, 3000)}`)
      await page.render({ canvas, viewport }).promise
      if (mine !== newest) return
      pages.push(canvas)
    }
    box.value?.replaceChildren(...pages)
    emit('shown', pdf.numPages)
  } catch (error) {
    if (mine === newest) failure.value = `The paper cannot be shown here (${String(error)}). It can be kept as PDF.`
  }
}

watch(() => props.data, show, { immediate: true, flush: 'post' })
onBeforeUnmount(() => {
  newest++
  void document_.value?.loadingTask.destroy()
})
</script>

<template>
  <div>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <div ref="box" class="pages" role="group" :aria-label="label" />
  </div>
</template>

<style scoped>
.pages {
  display: grid;
  gap: 14px;
  justify-content: center;
}

.pages :deep(canvas) {
  background: #fff;
  border: 1px solid var(--rule);
  box-shadow: 0 1px 5px rgb(35 28 46 / 14%);
}
</style>
