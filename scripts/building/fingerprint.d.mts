/** Whether what is built is of these very sources. */
export function isBuilt(): boolean;
/** @returns to be called once all of it is built */
export function beginBuilding(): () => void;
