<script setup lang="ts">
import { marked } from 'marked'
import DOMPurify from 'dompurify'
import hljs from 'highlight.js/lib/core'
import ts from 'highlight.js/lib/languages/typescript'
hljs.registerLanguage('typescript', ts)
const html = DOMPurify.sanitize(marked.parse('# Notes') as string) + hljs.highlight('let a = 1', { language: 'typescript' }).value
</script>
<template><div v-html="html" /></template>
