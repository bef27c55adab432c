import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'

export default defineConfig({
  plugins: [vue()],
  test: {
    include: ['{contract,core,server,web,demo,scripts}/**/*.test.ts'],
    testTimeout: 20_000,
  },
})
