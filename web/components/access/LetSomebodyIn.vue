<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { cache, reads } from '../../api/cache.ts'
import { shortDayWords } from '../../support/dates.ts'
import ChoiceKeys from '../shell/ChoiceKeys.vue'

/** A way in for one other device: what it may do, and what it is called until it comes. */
const emit = defineEmits<{ give: [role: 'coach' | 'wall', name: string, tentId: string | null] }>()
const role = ref<'coach' | 'wall'>('coach')
const name = ref('')
const { data: tents } = useQuery(reads.tents(), cache)
const tentId = ref<string | null>(null)
const chosen = computed(() => tentId.value ?? tents.value?.at(0)?.id ?? null)
const can = computed(() => role.value === 'coach' || chosen.value !== null)
function give() {
  const usual = role.value === 'coach' ? 'a coach' : 'a wall'
  emit('give', role.value, name.value.trim() || usual, role.value === 'wall' ? chosen.value : null)
  name.value = ''
}
</script>

<template>
  <section class="card-paper">
    <h2>Let somebody in</h2>
    <form @submit.prevent="give">
      <ChoiceKeys
        v-model="role"
        label="What may they do"
        :options="[
          { value: 'coach', text: 'A coach: works on everything' },
          { value: 'wall', text: 'A wall: looks at one tent' },
        ]"
      />
      <label v-if="role === 'wall'" class="tent">
        <span class="form-label">Which tent</span>
        <select
          class="form-select"
          :value="chosen"
          @change="tentId = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="t in tents" :key="t.id" :value="t.id">
            {{ `${t.name}, ${shortDayWords(t.date)}` }}
          </option>
        </select>
      </label>
      <label>
        <span class="form-label">For whom</span>
        <input
          v-model="name"
          class="form-control"
          maxlength="80"
          :placeholder="role === 'coach' ? 'Ines' : 'The tablet on the pole'"
        />
      </label>
      <BButton type="submit" variant="primary" :disabled="!can">Make a link</BButton>
      <p v-if="!can" class="soft">There is no tent to look at yet.</p>
    </form>
    <p class="soft small">
      A rider needs none of these: their phone’s own link is in the tent, under Phones, and shows no setting.
    </p>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: end;
  margin-top: 0.5rem;
}
section > p,
form > p {
  margin: 0.6rem 0 0;
}
</style>
