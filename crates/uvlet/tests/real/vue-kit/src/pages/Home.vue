<script setup lang="ts">
import { ref } from 'vue'
import { useMouse } from '@vueuse/core'
import { nanoid } from 'nanoid'
import dayjs from 'dayjs'
import { debounce } from 'lodash-es'
import mitt from 'mitt'
import axios from 'axios'
import { format } from 'date-fns'
import Order from './Order.vue'
const open = ref(false)
const { x } = useMouse()
const id = nanoid()
const bus = mitt<{ save: string }>()
bus.on('save', debounce((text: string) => axios.post('/save', { text }).catch(() => 0), 100))
</script>
<template>
  <el-card>{{ id.slice(0, 3) }} {{ x }} {{ dayjs(0).year() }} {{ format(0, 'yyyy') }}</el-card>
  <el-button @click="open = true">Order</el-button>
  <Order v-if="open" @close="open = false" @save="(text: string) => bus.emit('save', text)" />
</template>
