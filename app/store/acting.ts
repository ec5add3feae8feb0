let acting = 0;

/** Something was sent to an action and is not through yet. @returns says that it is; more than once does no harm */
export function beginActing(): () => void {
  let over = false;
  acting++;
  return () => {
    if (!over) acting--;
    over = true;
  };
}

/** Is an action under way on this page? */
export const isActing = (): boolean => acting > 0;
