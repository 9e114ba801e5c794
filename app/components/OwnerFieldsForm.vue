<script setup lang="ts">
import type { OwnerFields } from '~~/messages/book-entries'

const fields = defineModel<OwnerFields>({ required: true })
defineProps<{ problems?: Readonly<Record<string, string>> }>()
</script>

<template>
  <div class="fields">
    <v-text-field v-model="fields.name" v-focus-first label="Name" :error-messages="problems?.name" />
    <v-text-field v-model="fields.phone" label="Telephone" type="tel" :error-messages="problems?.phone" />
    <v-text-field v-model="fields.email" label="E-mail" type="email" :error-messages="problems?.email" />
    <v-textarea v-model="fields.address" label="Address" class="wide" :error-messages="problems?.address" />
    <v-textarea v-model="fields.notes" label="Notes" class="wide" :error-messages="problems?.notes" />
    <v-checkbox v-model="fields.isShop" label="The shop itself: restored on its own account" class="wide" />
  </div>
</template>
