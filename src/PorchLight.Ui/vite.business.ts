import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const server = "http://127.0.0.1:5080";

export default defineConfig({
  root: "pages/business",
  plugins: [react(), tailwindcss()],
  build: { outDir: "../../../PorchLight.Server/wwwroot", emptyOutDir: true, sourcemap: false },
  server: { proxy: { "/api": server, "/public": server, "/changes": { target: server, ws: true } } },
});
