<template>
  <div class="mx-auto max-w-xl px-6 pt-[12vh]">
    <h1>Sign-ups</h1>
    <p class="mt-2">
      Forms with which people join a list by themselves will stand here: what each one asks, and how
      many came through it.
    </p>
    <p class="muted mt-1">There are none in this version of Satchel. People come in from a file.</p>
    <NuxtLink to="/people/import" class="btn btn-go mt-4">Import people</NuxtLink>
  </div>
</template>
