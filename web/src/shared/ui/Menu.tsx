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
      {small ? (
        <DropdownMenu.Trigger
          className="grid size-6 shrink-0 cursor-pointer place-items-center rounded-[3px] hover:bg-hairline pointer-coarse:size-11"
          aria-label={label}
          title="More"
        >
          <svg width="16" height="4" viewBox="0 0 16 4" fill="currentColor" aria-hidden="true">
            <circle cx="2" cy="2" r="1.7" />
            <circle cx="8" cy="2" r="1.7" />
            <circle cx="14" cy="2" r="1.7" />
          </svg>
        </DropdownMenu.Trigger>
      ) : (
        <DropdownMenu.Trigger className="button" aria-label={label}>
          More
          <svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true">
            <path d="M0 0H9L4.5 6Z" fill="currentColor" />
          </svg>
        </DropdownMenu.Trigger>
      )}
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
