import js from "@eslint/js";
import prettier from "eslint-config-prettier";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// What may import what. An area of the business app knows the api, the kit and the frame, and no other area; the note of the day stands
// above the inquiries it lists. Of the frame each part knows only those before it. The app puts all of it together. The public page and
// the business app know nothing of each other.
const frame = ["shell", "saving", "conditions", "lists", "messages", "runs", "meetings", "clientParts"];
const areas = [
  "calendar",
  "clients",
  "followThrough",
  "forms",
  "identity",
  "inquiries",
  "library",
  "mail",
  "practice",
  "settings",
  "today",
  "workbench",
];
const knows = { today: ["inquiries"], forms: ["workbench"] };
const inside = (parts) => parts.map((part) => `**/${part}/*`);
const forbid = (files, group, message) => ({
  files,
  rules: { "no-restricted-imports": ["error", { patterns: [{ group, message }] }] },
});
const arrows = [
  ...areas.map((area) =>
    forbid(
      [`src/business/${area}/**`],
      inside(["app", ...areas.filter((other) => other !== area && !knows[area]?.includes(other))]),
      "An area knows no other area: what both need belongs into the kit or into the frame.",
    ),
  ),
  ...frame.map((part, place) =>
    forbid(
      [`src/business/${part}/**`],
      inside(["app", ...areas, ...frame.slice(place + 1)]),
      "The frame knows no area, and each part of it only those before it.",
    ),
  ),
  forbid(["src/kit/**", "src/api/**"], ["**/business/**", "**/public/**"], "The kit and the api know no app."),
  forbid(["src/public/**", "src/embed/**"], ["**/business/**"], "The public page knows nothing of the business app."),
];

export default tseslint.config(
  { ignores: ["node_modules", "src/api/schema.d.ts"] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  jsxA11y.flatConfigs.recommended,
  reactHooks.configs.flat.recommended,
  prettier,
  ...arrows,
  { rules: { "jsx-a11y/label-has-associated-control": ["error", { controlComponents: ["GrowingText"] }] } },
  { rules: { "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }] } },
  { files: ["scripts/*.mjs"], languageOptions: { globals: { process: "readonly", console: "readonly" } } },
);
