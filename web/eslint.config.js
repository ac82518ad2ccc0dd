import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";
import { readdirSync } from "node:fs";

// Layers, the lowest first; what is in none of them is a feature. A file imports from
// its own layer's folder and from lower ones; features do not know the application
// that shows them. Circles between folders are found by src/layers.test.ts.
const layers = ["api", "parts", "drawings"];
const folders = readdirSync("src", { withFileTypes: true })
  .filter((d) => d.isDirectory() && d.name !== "styles")
  .map((d) => d.name);
const features = folders.filter((f) => !layers.includes(f) && f !== "app");

const never = (names, message) => ({
  "no-restricted-imports": [
    "error",
    { patterns: [{ group: names.flatMap((n) => [`**/../${n}/*`]), message }] },
  ],
});

const wholeCache = {
  selector: "CallExpression[callee.property.name='invalidateQueries'][arguments.length=0]",
  message: 'Say what was written: wrote(qc, "packs") of api/touched.',
};
const ownCache = { ...wholeCache, selector: "CallExpression[callee.property.name='invalidateQueries']" };
const ownWrite = {
  selector: "CallExpression[callee.object.name='api'][callee.property.name=/^(POST|PUT|DELETE)$/]",
  message: "A view writes by a mutation of its feature's api.ts (useWrite).",
};
const ownNumber = {
  selector: "ImportSpecifier[imported.name=/^parse(InRange|Number)$/]",
  message: "A view reads numbers by a schema of its model (typedNumber, typedQuantity, typedWhole).",
};
// What React-Bootstrap has is taken from there; an address that looks like a key stays a link.
const has =
  "btn|alert|form-[a-z]+|list-group|list-group-item|progress|progress-bar|modal-[a-z]+|invalid-feedback|table";
const bare = [
  { selector: "JSXOpeningElement[name.name=/^(select|textarea|table)$/]" },
  {
    selector: `JSXOpeningElement[name.name=/^(?!a$|label$)[a-z]/] > JSXAttribute[name.name='className'] :matches(Literal[value=/(^| )(${has})( |$)/], TemplateElement[value.raw=/(^| )(${has})( |$)/])`,
  },
].map((r) => ({ ...r, message: "React-Bootstrap has this: take its part." }));

export default tseslint.config(
  { ignores: ["src/api/schema.d.ts"] },
  ...tseslint.configs.recommended,
  {
    plugins: { "react-hooks": hooks },
    rules: {
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "error",
      "no-console": "error",
      "no-restricted-syntax": ["error", wholeCache],
    },
  },
  ...layers.map((layer, i) => ({
    files: [`src/${layer}/**/*.{ts,tsx}`],
    rules: never(
      [...layers.slice(i + 1), ...features, "app"],
      `${layer} is below what it imports here: hand it in, or move it down.`,
    ),
  })),
  {
    files: features.map((f) => `src/${f}/**/*.{ts,tsx}`),
    rules: never(["app"], "A feature does not know the application that shows it."),
  },
  {
    // Presses of the outbox know what they answer, and look anew at that alone.
    files: ["src/**/*.ts"],
    ignores: [
      "src/api/touched.ts",
      "src/app/changes.ts",
      "src/flights/api.ts",
      "src/flights/gate/api.ts",
      "src/jobs/kit.ts",
    ],
    rules: { "no-restricted-syntax": ["error", ownCache] },
  },
  {
    files: ["src/**/*.tsx"],
    rules: { "no-restricted-syntax": ["error", ownCache, ownWrite, ownNumber, ...bare] },
  },
  {
    // A view fits on a page or two; what is larger is several things.
    files: ["src/**/*.tsx"],
    rules: { "max-lines": ["error", { max: 150, skipBlankLines: true, skipComments: true }] },
  },
);
