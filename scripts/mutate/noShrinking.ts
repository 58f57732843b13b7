/** A mutant is dead at its first counterexample: finding the smallest one would only take time. */
import fc from "fast-check";

fc.configureGlobal({ ...fc.readConfigureGlobal(), endOnFailure: true });
