<script setup lang="ts">
// A document of the page: it plays, its signals can be set, and what is changed in its text plays on.
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import type { Seen, SignalFacts, Stage } from './stage';

const props = defineProps<{
  document: string;
  title: string;
  head: string;
  drawings: string;
  rehearsal: string;
  checks: boolean;
}>();
const title = decodeURIComponent(props.title);
const given = {
  head: decodeURIComponent(props.head),
  drawings: decodeURIComponent(props.drawings),
  rehearsal: decodeURIComponent(props.rehearsal),
};
const original = decodeURIComponent(props.document).trimEnd();
const text = ref(original);
const wrong = ref('');
const told = ref('');
const signals = shallowRef<readonly SignalFacts[]>([]);
const values = ref<Record<string, number | boolean | string>>({});
const seen = shallowRef<Seen>();
const canvas = ref<HTMLCanvasElement>();
const root = ref<HTMLElement>();
let stage: Stage | undefined;
let frame = 0;
let waiting = 0;

const pulses = computed(() => signals.value.filter(({ kind }) => kind === 'pulse'));
const others = computed(() => signals.value.filter(({ kind }) => kind !== 'pulse' && kind !== 'vector'));
const rows = computed(() => Math.max(7, text.value.split('\n').length + 1));

async function take(): Promise<void> {
  if (stage === undefined) return;
  try {
    signals.value = await stage.take(text.value);
    for (const { name, first } of others.value) values.value[name] ??= first as number;
    wrong.value = '';
    if (props.checks) told.value = (await stage.findings()) || 'The check finds nothing.';
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : String(error);
  }
}

function edited(): void {
  clearTimeout(waiting);
  waiting = window.setTimeout(() => void take(), 250);
}

function set(name: string, value: number | boolean | string): void {
  values.value[name] = value;
  stage?.performer?.set(name, value as number);
}

function rehearse(): void {
  const missed = stage!.rehearsed();
  told.value = missed === '' ? 'The rehearsal goes as it should.' : missed;
  stage!.play();
}

function rangeOf({ range, bounds }: SignalFacts): readonly [number, number] {
  const [least, most] = range ?? [0, 100];
  const wide = Math.max(most - least, Math.abs(most), Math.abs(least), 1);
  return [bounds?.from ?? Math.min(0, least - wide), bounds?.to ?? most + wide];
}

function picture(now: number): void {
  frame = requestAnimationFrame(picture);
  if (stage === undefined || canvas.value === undefined) return;
  stage.picture(now, canvas.value);
  const next = stage.seen;
  if (next?.frame !== seen.value?.frame || next?.state !== seen.value?.state) seen.value = next;
}

let watching: IntersectionObserver | undefined;
onMounted(() => {
  // Documents that are not seen do not play.
  watching = new IntersectionObserver(async ([entry]) => {
    cancelAnimationFrame(frame);
    if (entry?.isIntersecting !== true) return;
    if (stage === undefined) {
      const { Stage } = await import('./stage');
      stage ??= new Stage(given);
      await take();
    }
    frame = requestAnimationFrame(picture);
  });
  watching.observe(root.value!);
});
onBeforeUnmount(() => {
  watching?.disconnect();
  cancelAnimationFrame(frame);
});
</script>

<template>
  <div ref="root" class="live" :class="{ mended: title === 'mended' }">
    <canvas
      ref="canvas"
      role="img"
      :aria-label="seen ? `the character shows ${seen.state}` : 'the character'"
    />
    <div>
      <p v-if="title !== ''" class="title">{{ title }}</p>
      <p class="says">
        <b>{{ seen?.state ?? '…' }}</b> <span v-if="seen">({{ seen.frame }})</span><br />
        <span v-if="seen">{{ seen.why }}.</span>
      </p>
      <div class="signals">
        <label v-for="one of others" :key="one.name">
          <span>{{ one.name }}</span>
          <input
            v-if="one.kind === 'number'"
            type="range"
            step="any"
            :min="rangeOf(one)[0]"
            :max="rangeOf(one)[1]"
            :value="values[one.name]"
            @input="set(one.name, Number(($event.target as HTMLInputElement).value))"
          />
          <input
            v-else-if="one.kind === 'flag'"
            type="checkbox"
            :checked="values[one.name] === true"
            @change="set(one.name, ($event.target as HTMLInputElement).checked)"
          />
          <select
            v-else
            :value="values[one.name]"
            @change="set(one.name, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="option of one.options" :key="option">{{ option }}</option>
          </select>
          <span v-if="one.kind === 'number'">{{ Math.round(Number(values[one.name])) }}</span>
        </label>
        <div class="presses">
          <button
            v-for="one of pulses"
            :key="one.name"
            type="button"
            @click="stage?.performer?.pulse(one.name)"
          >
            {{ one.name }}
          </button>
          <button v-if="given.rehearsal !== ''" type="button" @click="rehearse">play the rehearsal</button>
          <button v-if="text !== original" type="button" @click="((text = original), take())">
            as it was
          </button>
        </div>
      </div>
    </div>
    <textarea
      v-model="text"
      spellcheck="false"
      aria-label="the document; what you change plays"
      :rows="rows"
      :aria-invalid="wrong !== ''"
      @input="edited"
    />
    <p v-if="wrong !== ''" class="told wrong" role="status">{{ wrong }}</p>
    <p v-else-if="told !== ''" class="told" role="status">{{ told }}</p>
  </div>
</template>
