/**
 * Grams aren't money: a lint rule that holds branded numbers apart. TypeScript adds and compares any two numbers, so the brands of
 * `core/measure/exact.ts` alone don't stop `mg(5) + micros(7)`; this does, by asking the compiler for the types of both sides.
 */
const MIXING = new Set(["+", "-", "<", ">", "<=", ">=", "===", "!==", "==", "!="]);
const BRAND = /^__@brand@/;

/** The names a type is branded with. */
function brandsOf(type, checker) {
  return checker
    .getPropertiesOfType(type)
    .filter((p) => BRAND.test(p.escapedName))
    .map((p) => checker.typeToString(checker.getTypeOfSymbol(p)));
}

export default {
  meta: {
    type: "problem",
    schema: [],
    messages: { mixed: "{{left}} and {{right}} are different measures: they can't be added, taken away or compared." },
  },
  create(context) {
    const services = context.sourceCode.parserServices;
    const checker = services.program.getTypeChecker();
    const brand = (node) => brandsOf(checker.getNonNullableType(services.getTypeAtLocation(node)), checker).join(" and ");
    const check = (node) => {
      const [left, right] = [brand(node.left), brand(node.right)];
      if (left && right && left !== right) context.report({ node, messageId: "mixed", data: { left, right } });
    };
    return {
      BinaryExpression: (node) => MIXING.has(node.operator) && check(node),
      AssignmentExpression: (node) => ["+=", "-="].includes(node.operator) && check(node),
    };
  },
};
