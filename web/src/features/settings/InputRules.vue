<script setup lang="ts">
import type { InputRule } from '@/api/project'
import { computed } from 'vue'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'

const props = defineProps<{ rules: InputRule[] }>()
const emit = defineEmits<{ change: [rules: InputRule[]] }>()
const catalogue = useCatalogue()

const fields = computed(() => [{ name: '', options: (catalogue.catalogue?.rule_fields ?? []).map(({ id, label }) => ({ id, label: id, about: label })) }])

function set(index: number, change: Partial<InputRule>) {
  emit(
    'change',
    props.rules.map((rule, at) => (at === index ? { ...rule, ...change } : rule)),
  )
}
function move(index: number, by: number) {
  const rules = [...props.rules]
  rules.splice(index + by, 0, ...rules.splice(index, 1))
  emit('change', rules)
}
</script>

<template>
  <ol class="mt-3 space-y-1.5">
    <li v-for="(rule, index) in rules" :key="index" class="grid grid-cols-[14px_84px_minmax(0,1fr)_12px_minmax(0,1.3fr)_52px] items-center gap-1.5 text-sm">
      <span class="text-xs text-dim">{{ index + 1 }}</span>
      <ChoiceList :groups="fields" :model-value="rule.field" :label="`field of rule ${index + 1}`" @update:model-value="set(index, { field: $event ?? rule.field })">{{ rule.field }}</ChoiceList>
      <input
        class="field min-w-0"
        :value="rule.pattern"
        :aria-label="`pattern of rule ${index + 1}`"
        spellcheck="false"
        maxlength="200"
        title="* stands for anything, ? for one character"
        @change="set(index, { pattern: ($event.target as HTMLInputElement).value })"
      />
      <span class="text-dim">→</span>
      <ChoiceList :groups="catalogue.encodingGroups" :model-value="rule.encoding" :label="`encoding of rule ${index + 1}`" @update:model-value="set(index, { encoding: $event ?? rule.encoding })">{{
        catalogue.encodingLabel(rule.encoding)
      }}</ChoiceList>
      <span class="flex justify-end gap-1.5 text-dim">
        <button v-if="index > 0" class="hover:text-ink" :aria-label="`rule ${index + 1} up`" @click="move(index, -1)">↑</button>
        <button
          class="hover:text-madder"
          :aria-label="`remove rule ${index + 1}`"
          @click="
            emit(
              'change',
              rules.filter((_, at) => at !== index),
            )
          "
        >
          ×
        </button>
      </span>
    </li>
  </ol>
  <button class="mt-2 text-xs text-dim hover:text-ink" @click="emit('change', [...rules, { field: 'camera', pattern: '*', encoding: 'logc3-ei800-wg3' }])">+ rule</button>
</template>
