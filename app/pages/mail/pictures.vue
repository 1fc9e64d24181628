<template>
  <div class="mx-auto max-w-[1180px] px-6 py-5">
    <p class="small"><NuxtLink to="/mail" class="link">Mail</NuxtLink></p>
    <h1>Pictures</h1>
    <p class="muted mt-0.5 mb-4">
      Each letter gets a picture in the width in which it shows it, sharp on fine screens.
    </p>
    <PictureLibrary />
  </div>
</template>
