/** The icons there are. Each comes from its own file: the package's entry names six thousand, and all would be read. */
export { default as IconArrowDown } from '@tabler/icons-react/dist/esm/icons/IconArrowDown.mjs';
export { default as IconArrowUp } from '@tabler/icons-react/dist/esm/icons/IconArrowUp.mjs';
export { default as IconGripVertical } from '@tabler/icons-react/dist/esm/icons/IconGripVertical.mjs';
export { default as IconMathFunction } from '@tabler/icons-react/dist/esm/icons/IconMathFunction.mjs';
export { default as IconMessage } from '@tabler/icons-react/dist/esm/icons/IconMessage.mjs';
export { default as IconMoon } from '@tabler/icons-react/dist/esm/icons/IconMoon.mjs';
export { default as IconPin } from '@tabler/icons-react/dist/esm/icons/IconPin.mjs';
export { default as IconPinFilled } from '@tabler/icons-react/dist/esm/icons/IconPinFilled.mjs';
export { default as IconSun } from '@tabler/icons-react/dist/esm/icons/IconSun.mjs';
export { default as IconTable } from '@tabler/icons-react/dist/esm/icons/IconTable.mjs';
export { default as IconX } from '@tabler/icons-react/dist/esm/icons/IconX.mjs';
