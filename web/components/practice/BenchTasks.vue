<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { benchTasks, isRight, type BenchTask } from '#core/practice/bench/tasks'
import NumberField from '../shell/NumberField.vue'
import { keepDraft, readDraft } from '../../support/drafts.ts'

/** What is worked out on the bench, task by task; told why after each, and listed at the end. Nothing is counted up. */
const props = defineProps<{ seed: number }>()

type Given = number | string
const draft = computed(() => `practice-bench:${props.seed}`)
const tasks = computed<BenchTask[]>(() => benchTasks(props.seed))
const given = ref<Given[]>([])
const typed = ref<number | null>(null)
const fault = ref<string | null>(null)
/** Looking at the answer of the task that was given last. */
const told = ref(false)
watch(
  draft,
  (key) => {
    given.value = readDraft<Given[]>(key) ?? []
    told.value = false
    typed.value = null
    fault.value = null
  },
  { immediate: true },
)
const at = computed(() => (told.value ? given.value.length - 1 : given.value.length))
const task = computed<BenchTask | undefined>(() => tasks.value[at.value])
const heading = useTemplateRef<HTMLElement>('heading')
const nextKey = useTemplateRef<HTMLButtonElement>('nextKey')

function give(answer: Given) {
  given.value = [...given.value, answer]
  keepDraft(draft.value, given.value)
  told.value = true
  void nextTick(() => nextKey.value?.focus())
}
function giveTyped() {
  fault.value = typed.value === null || Number.isNaN(typed.value) ? 'Enter a number.' : null
  if (fault.value === null) give(typed.value!)
}
function next() {
  told.value = false
  typed.value = null
  void nextTick(() => heading.value?.focus())
}
function again() {
  keepDraft(draft.value, null)
  given.value = []
  next()
}
const right = (i: number) => isRight(tasks.value[i], given.value[i])
const answerWords = (t: BenchTask) => (t.kind === 'number' ? `${t.answer} ${t.unit}` : t.answer)
const givenWords = (i: number) => {
  const t = tasks.value[i]
  return t.kind === 'number' ? `${given.value[i]} ${t.unit}` : String(given.value[i])
}
</script>

<template>
  <section v-if="task" class="card-paper task" aria-labelledby="task-title">
    <p class="soft small num">{{ `${at + 1} of ${tasks.length}` }}</p>
    <h2 id="task-title" ref="heading" tabindex="-1">{{ task.title }}</h2>
    <p class="asks">{{ task.asks }}</p>
    <template v-if="!told">
      <form v-if="task.kind === 'number'" class="give" novalidate @submit.prevent="giveTyped">
        <NumberField v-model="typed" label="Answer" :unit="task.unit" :fault="fault" />
        <button type="submit" class="btn btn-primary">That is it</button>
      </form>
      <ul v-else class="choices">
        <li v-for="c in task.choices" :key="c">
          <button type="button" class="btn btn-plain" @click="give(c)">{{ c }}</button>
        </li>
      </ul>
    </template>
    <div v-else role="status">
      <p class="verdict" :class="{ right: right(at) }">
        <b>{{ right(at) ? 'So it is:' : 'Not quite:' }}</b>
        {{ right(at) ? answerWords(task) : `you said ${givenWords(at)}, it is ${answerWords(task)}` }}
      </p>
      <p>{{ task.because }}</p>
      <button ref="nextKey" type="button" class="btn btn-primary" @click="next">
        {{ at + 1 < tasks.length ? 'The next one' : 'To the end' }}
      </button>
    </div>
  </section>
  <section v-else class="card-paper task" aria-labelledby="task-end">
    <h2 id="task-end" ref="heading" tabindex="-1">All of them, once more to read</h2>
    <ol class="list">
      <li v-for="(t, i) in tasks" :key="t.key">
        <b>{{ t.title }}</b>
        <span v-if="right(i)" class="right">{{ `right: ${answerWords(t)}` }}</span>
        <span v-else class="off">{{ `you said ${givenWords(i)}, it is ${answerWords(t)}` }}</span>
        <span class="soft">{{ t.because }}</span>
      </li>
    </ol>
    <div class="acts">
      <RouterLink
        class="btn btn-primary"
        :to="{ name: 'practice', params: { drill: 'bench', seed: seed + 1 } }"
        >Other numbers</RouterLink
      >
      <button type="button" class="btn btn-plain" @click="again">The same again</button>
    </div>
  </section>
</template>

<style scoped>
.task {
  padding: 1rem 1.2rem;
  max-width: 720px;
}
h2:focus {
  outline: none;
}
.asks {
  font-size: 1.1rem;
}
.give {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.5rem 0.8rem;
}
.choices {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 0.5rem;
}
.choices .btn {
  width: 100%;
  text-align: left;
}
.verdict {
  font-size: 1.1rem;
}
.verdict b,
.off {
  color: var(--rust);
}
.verdict.right b,
.right {
  color: color-mix(in srgb, var(--moss) 65%, var(--ink));
}
.list li {
  margin-bottom: 0.6rem;
}
.list li > * {
  display: block;
}
.list .right,
.list .off {
  font-weight: 650;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
