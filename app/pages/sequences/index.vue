<template><span /></template>
