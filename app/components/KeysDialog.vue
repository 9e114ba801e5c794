<script setup lang="ts">
const { opened } = useKeysDialog()
const keys = currentBenchKeys()
const next = currentNextAction()
</script>

<template>
  <v-dialog v-model="opened" max-width="440">
    <v-card title="Keys on this screen">
      <v-card-text>
        <dl class="keys">
          <template v-if="next"
            ><dt><kbd>Space</kbd> <kbd>PgDn</kbd></dt>
            <dd>{{ unref(next.label) }}</dd></template
          >
          <template v-if="next?.back"
            ><dt><kbd>⌫</kbd></dt>
            <dd>Step back</dd></template
          >
          <template v-for="key in keys" :key="key.key"
            ><dt>
              <kbd>{{ key.key.toUpperCase() }}</kbd>
            </dt>
            <dd>{{ key.label }}</dd></template
          >
          <dt><kbd>Esc</kbd></dt>
          <dd>Close what is open</dd>
        </dl>
      </v-card-text>
      <v-card-actions><v-spacer /><v-btn variant="outlined" @click="opened = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 10px 18px;
  margin: 0;
  align-items: center;
}
.keys dd {
  margin: 0;
}
</style>
