<script setup lang="ts">
import { useForm } from 'vee-validate'
import { z } from 'zod'
import QRCode from 'qrcode'
import { onMounted, ref } from 'vue'
const emit = defineEmits<{ close: []; save: [string] }>()
const { handleSubmit } = useForm()
const schema = z.object({ name: z.string() })
const image = ref('')
onMounted(async () => { image.value = await QRCode.toDataURL('order') })
const send = handleSubmit(() => { emit('save', JSON.stringify(schema.safeParse({ name: 'x' }))); emit('close') })
</script>
<template>
  <el-dialog model-value title="Order" @close="emit('close')"><img :src="image" /><el-button @click="send">Send</el-button></el-dialog>
</template>
