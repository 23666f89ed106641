import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue(), tailwindcss()],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: { target: 'es2022', modulePreload: { polyfill: false }, assetsInlineLimit: 0 },
  // one thread and one set of modules for all: they are parsed once, not for each file
  test: { include: ['src/**/*.test.ts'], pool: 'threads', isolate: false, poolOptions: { threads: { singleThread: true } } },
})
