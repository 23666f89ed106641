<script setup lang="ts">
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'

defineProps<{ disabled: boolean; label: string }>()
const emit = defineEmits<{ choose: [id: string | null] }>()
const catalogue = useCatalogue()
const RULES = 'as the rules and the file say'
</script>

<template>
  <ChoiceList
    look="control"
    class="shrink-0"
    :disabled="disabled"
    :label="label"
    :groups="[{ name: '', options: [{ id: '', label: RULES }] }, ...catalogue.encodingGroups]"
    :model-value="null"
    @update:model-value="emit('choose', $event || null)"
  >
    {{ label }}
  </ChoiceList>
</template>
