<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'

import { ask, type Question } from '../../api/ask'
import { api, fileBody } from '../../api/client'
import type { Company } from '../../api/types'
import FilePick from '../../ui/FilePick.vue'
import TextField from '../../ui/TextField.vue'

/** The installer's company, as it stands at the head of papers of all sites. */
const emit = defineEmits<{ changed: [] }>()
const company = shallowRef<Company>()
const problem = ref('')
const version = ref(0) // of the logo, which keeps its address

async function take(question: Question<Company>, isChange = true) {
  const told = await ask(question)
  problem.value = told.problem
  if (!told.data) return
  company.value = told.data
  version.value++
  if (isChange) emit('changed')
}
onMounted(() => take(api.GET('/api/company'), false))
const rename = (name: string) => take(api.PUT('/api/company', { body: { name } }))
const setLogo = (file: File) => take(api.PUT('/api/company/logo', fileBody(file)))
const removeLogo = () => take(api.DELETE('/api/company/logo'))
</script>

<template>
  <section aria-label="Your company">
    <h2>Your company</h2>
    <p class="soft">At the head of the papers of all sites.</p>
    <TextField label="Name" :value="company?.name" :maxlength="200" @change="rename" />
    <p class="logo">
      <img v-if="company?.logo" :src="`/api/company/logo?v=${version}`" alt="Logo" />
      <FilePick
        :label="company?.logo ? 'Another logo' : 'Logo, PNG or JPEG'"
        accept="image/png,image/jpeg"
        @pick="setLogo"
      />
      <button v-if="company?.logo" type="button" class="plain-button link short" @click="removeLogo">Remove</button>
    </p>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
h2 {
}

p {
  margin: 2px 0 6px;
  font-size: var(--second);
}

.logo {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}

img {
  max-width: 120px;
  max-height: 44px;
  background: #fff;
  border: 1px solid var(--rule);
}
</style>
