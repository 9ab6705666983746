<script setup lang="ts">
import { computed, ref, onMounted } from 'vue'
import Fuse from 'fuse.js'
import Sortable from 'sortablejs'
import { useQuery } from '@tanstack/vue-query'
import { Swiper, SwiperSlide } from 'swiper/vue'
import 'swiper/css'
import { useFloating } from '@floating-ui/vue'
const term = ref('')
const list = ref<HTMLElement>()
const { data } = useQuery({ queryKey: ['l'], queryFn: async () => ['ash', 'oak', 'elm'] })
const fuse = computed(() => new Fuse(data.value ?? []))
const shown = computed(() => (term.value ? fuse.value.search(term.value).map((r) => r.item) : data.value))
onMounted(() => Sortable.create(list.value!))
useFloating(list, list)
</script>
<template><el-input v-model="term" /><ul ref="list"><li v-for="i in shown" :key="i">{{ i }}</li></ul><Swiper><SwiperSlide>a</SwiperSlide></Swiper></template>
