<script setup lang="ts">
import { useCompany } from './useTogether'

/** Keeps the window in company with the others, and shows nothing itself. */
useCompany()
</script>

<template><span class="hidden" /></template>
