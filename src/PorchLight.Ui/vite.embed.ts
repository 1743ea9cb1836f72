import { defineConfig } from "vite";

export default defineConfig({
  publicDir: false,
  build: {
    outDir: "../PorchLight.Server/wwwroot",
    emptyOutDir: false,
    lib: { entry: "src/embed/embed.ts", formats: ["iife"], name: "PorchLightEmbed", fileName: () => "embed.js" },
  },
});
