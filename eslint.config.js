/** Lint rules. Which folder may import from which is in .dependency-cruiser.mjs. */
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";
import brands from "./scripts/lint/brands.mjs";

export default tseslint.config(
  { ignores: ["build/", ".react-router/", "node_modules/", ".data/", "test-results/"] },
  ...tseslint.configs.strictTypeChecked,
  { languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } } },
  {
    rules: {
      // Numbers in words are what half of this program writes.
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      // A short arrow may hand on nothing.
      "@typescript-eslint/no-confusing-void-expression": ["error", { ignoreArrowShorthand: true }],
      // React takes handlers that promise; what they do is fetch or submit, which report their own failures.
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false, properties: false } }],
      // Loaders answer by throwing a Response, as the framework has it.
      "@typescript-eslint/only-throw-error": ["error", { allow: [{ from: "lib", name: "Response" }] }],
      // Index access is checked by the compiler (noUncheckedIndexedAccess); "!" stands where the line before says why it can't miss.
      "@typescript-eslint/no-non-null-assertion": "off",
    },
  },
  { files: ["**/*.{ts,tsx}"], plugins: { zelbin: { rules: { brands } } }, rules: { "zelbin/brands": "error" } },
  { files: ["**/*.{js,mjs}"], ...tseslint.configs.disableTypeChecked },
  { ...reactHooks.configs.flat.recommended, files: ["app/**/*.{ts,tsx}"] },
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_", ignoreRestSiblings: true }],
    },
  },
  {
    files: ["app/**/*.{ts,tsx}"],
    rules: { "react-hooks/refs": "off", "react-hooks/set-state-in-effect": "off", "react-hooks/incompatible-library": "off" },
  },
  {
    files: ["core/**/*.ts"],
    ignores: ["core/**/*.test.ts"],
    rules: {
      "no-restricted-globals": ["error", "process", "window", "document", "fetch", "setTimeout"],
      "no-restricted-syntax": [
        "error",
        {
          selector:
            "CallExpression[callee.object.name='Math'][callee.property.name='random'], CallExpression[callee.object.name='Date'][callee.property.name='now'], NewExpression[callee.name='Date'][arguments.length=0]",
          message: "core/ takes the clock and chance from its caller.",
        },
      ],
    },
  },
  {
    files: ["db/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector:
            "TaggedTemplateExpression[tag.name='sql'] > TSTypeParameterInstantiation, MemberExpression[property.name='$type'], CallExpression[callee.property.name='execute'] > TSTypeParameterInstantiation",
          message: "What the database answers is read, not taken for its type: use a column's reader, or one of columnsOf.ts.",
        },
      ],
    },
  },
);
