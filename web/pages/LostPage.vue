<template>
  <div class="page">
    <h1>There is no such screen</h1>
    <p><RouterLink to="/">Back to today</RouterLink></p>
  </div>
</template>
