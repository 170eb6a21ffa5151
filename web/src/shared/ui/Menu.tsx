import { DropdownMenu } from "radix-ui";

type Item = { label: string; onSelect?: () => void; href?: string };

/** What else can be done with a thing. */
export function Menu({
  label,
  items,
  small = false,
}: {
  label: string;
  items: readonly (Item | false)[];
  small?: boolean;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={small ? "button !px-1.5 !py-0 text-[13px]" : "button"} aria-label={label}>
        More
        <svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true">
          <path d="M0 0H9L4.5 6Z" fill="currentColor" />
        </svg>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="sheet z-20 grid min-w-[11rem] p-1 shadow-lg">
          {items.map(
            (item) =>
              item && (
                <DropdownMenu.Item
                  key={item.label}
                  asChild={item.href !== undefined}
                  onSelect={() => item.onSelect?.()}
                  className="cursor-pointer rounded-[2px] px-2.5 py-1.5 outline-none data-highlighted:bg-ink data-highlighted:text-sheet"
                >
                  {item.href !== undefined ? (
                    <a href={item.href} download>
                      {item.label}
                    </a>
                  ) : (
                    item.label
                  )}
                </DropdownMenu.Item>
              ),
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
