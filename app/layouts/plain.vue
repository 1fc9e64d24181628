<template>
  <main class="mx-auto w-full max-w-md px-6 pt-[10vh] pb-10"><slot /></main>
</template>
