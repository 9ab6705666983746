<script setup lang="ts">
import { Line } from 'vue-chartjs'
import { Chart, registerables } from 'chart.js'
Chart.register(...registerables)
const data = { labels: [1, 2, 3], datasets: [{ label: 'a', data: [1, 4, 9] }] }
</script>
<template><Line :data="data" /></template>
