<template>
  <div class="mx-auto max-w-xl px-6 pt-[12vh]">
    <h1>Sequences</h1>
    <p class="mt-2">
      Mail that sends itself, as a map of steps, will stand here: who is inside, and at which step.
    </p>
    <p class="muted mt-1">
      There are none in this version of Satchel. A mailing goes to a list at a time you choose.
    </p>
    <button class="btn btn-go mt-4" @click="writeLetter">Write a letter</button>
  </div>
</template>
