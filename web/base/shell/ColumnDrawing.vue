<!-- A column of liquid that fills once, between its two marks: the drawing on the door. -->
<template>
  <svg viewBox="0 0 640 720" preserveAspectRatio="xMidYMid slice" aria-hidden="true">
    <g stroke="#3a4a47" stroke-width="2">
      <path v-for="n in 27" :key="n" :d="`M${n % 5 === 2 ? 396 : 420} ${60 + n * 22}H452`" />
    </g>
    <path d="M196 40V600a44 44 0 0 0 44 44H700" fill="none" stroke="#0f1716" stroke-width="150" />
    <path d="M196 40V600a44 44 0 0 0 44 44H700" fill="none" stroke="#26332f" stroke-width="132" />
    <g class="liquid">
      <path d="M196 236V600a44 44 0 0 0 44 44H700" fill="none" stroke="#7fb8c9" stroke-width="132" />
      <path d="M130 236H262" stroke="#cfe5ec" stroke-width="4" />
    </g>
    <path d="M452 214H292" stroke="#eef3f1" stroke-width="2" stroke-dasharray="3 9" />
  </svg>
</template>

<style scoped>
.liquid {
  animation: rise 1.4s cubic-bezier(0.2, 0.7, 0.2, 1) both;
}
@keyframes rise {
  from {
    transform: translateY(180px);
  }
  to {
    transform: none;
  }
}
</style>
