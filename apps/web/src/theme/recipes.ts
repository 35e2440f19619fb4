// The recipes of the components that pages begin with, and no others: those of all components are the larger part of a first visit. A
// component that comes later brings its own (`recipe`).
import {
  badgeRecipe,
  buttonRecipe,
  checkboxSlotRecipe,
  checkmarkRecipe,
  codeRecipe,
  dialogSlotRecipe,
  fieldSlotRecipe,
  headingRecipe,
  iconRecipe,
  inputAddonRecipe,
  inputRecipe,
  kbdRecipe,
  linkRecipe,
  listSlotRecipe,
  menuSlotRecipe,
  nativeSelectSlotRecipe,
  progressSlotRecipe,
  radioGroupSlotRecipe,
  radiomarkRecipe,
  spinnerRecipe,
  tableSlotRecipe,
  textareaRecipe,
} from '@chakra-ui/react/theme';

export const recipes = {
  badge: badgeRecipe,
  button: buttonRecipe,
  checkmark: checkmarkRecipe,
  code: codeRecipe,
  heading: headingRecipe,
  icon: iconRecipe,
  input: inputRecipe,
  inputAddon: inputAddonRecipe,
  kbd: kbdRecipe,
  link: linkRecipe,
  radiomark: radiomarkRecipe,
  spinner: spinnerRecipe,
  textarea: textareaRecipe,
};

export const slotRecipes = {
  checkbox: checkboxSlotRecipe,
  dialog: dialogSlotRecipe,
  field: fieldSlotRecipe,
  list: listSlotRecipe,
  menu: menuSlotRecipe,
  nativeSelect: nativeSelectSlotRecipe,
  progress: progressSlotRecipe,
  radioGroup: radioGroupSlotRecipe,
  table: tableSlotRecipe,
};
