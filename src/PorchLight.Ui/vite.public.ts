import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  root: "pages/form",
  base: "/form/",
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../../../PorchLight.Server/wwwroot/form",
    emptyOutDir: true,
    sourcemap: false,
    rollupOptions: { input: ["pages/form/index.html", "pages/form/meeting.html"] },
  },
});
