/** Whether what is built is of these very sources. */
export function isBuilt(): boolean;
export function beginBuilding(): void;
/** Says so. */
export function setBuilt(): void;
