<script setup lang="ts">
/** What opens over any screen: fetched once the screen below stands, or when it is first asked for. */
</script>

<template>
  <PhotographViewer />
  <ConflictDialog />
  <RefusedDialog />
  <KeysDialog />
  <ReckonerDrawer />
  <TimerDialog />
</template>
