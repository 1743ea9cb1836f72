import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  root: "pages/porch",
  base: "/porch/",
  plugins: [react(), tailwindcss()],
  build: { outDir: "../../../PorchLight.Server/wwwroot/porch", emptyOutDir: true, sourcemap: false },
});
