<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { Menu } from '@element-plus/icons-vue'
const { t } = useI18n()
</script>
<template>
  <el-menu mode="horizontal" router>
    <el-menu-item index="/"><el-icon><Menu /></el-icon>{{ t('home') }}</el-menu-item>
    <el-menu-item v-for="p in ['charts', 'notes', 'list']" :key="p" :index="'/' + p">{{ p }}</el-menu-item>
  </el-menu>
  <router-view />
</template>
