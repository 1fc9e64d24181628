<template><p>hello</p></template>
