import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  {
    ignores: [
      "build",
      "dist",
      ".react-router",
      "node_modules",
      "test-results",
      "playwright-report",
      "coverage",
      "shots",
    ],
  },
  {
    files: ["**/*.{ts,tsx}"],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // Loaders redirect by throwing a Response: that is React Router's own contract.
      "@typescript-eslint/only-throw-error": "off",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      eqeqeq: ["error", "always", { null: "ignore" }],
      "no-console": "error",
    },
  },
  // A longer one has a reason, and says it.
  { files: ["app/**/*.{ts,tsx}"], ignores: ["**/*.test.*"], rules: { "max-lines-per-function": ["error", 120] } },
  { files: ["core/**/*.ts"], ignores: ["**/*.test.*"], rules: { "max-lines-per-function": ["error", 80] } },
  { files: ["cli/**/*.ts"], rules: { "no-console": "off" } },
);
