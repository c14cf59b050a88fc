/** Whether the window is too narrow for a whole strip. */
export function narrow() {
  return window.innerWidth < 600;
}
