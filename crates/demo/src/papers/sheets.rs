//! What lies in the stash, kit by kit.

use super::patterns::{
    boards, contours, dots, festival, gingham, gulls, kites, ledger, net, pennants, plain, reeds,
    snow, stripes, suns, wash, waves,
};
use super::{Direction, PaperSide, StashThing};

const CREAM: &str = "#f8f2e3";
const CHALK: &str = "#fdfcf8";
const FOG: &str = "#e9efee";
const TEAL: &str = "#1f8280";
const DEEP: &str = "#14585c";
const MINT: &str = "#cfe5dd";
const NAVY: &str = "#1d2c52";
const SNOW: &str = "#f2f5fa";
const RED: &str = "#d4493a";
const CORAL: &str = "#ea9a86";
const MUSTARD: &str = "#dfa32b";
const STRAW: &str = "#f3d98c";
const SAND: &str = "#e4cfa4";
const KRAFT: &str = "#c9a47a";
const BARK: &str = "#8a5f3c";
const INK: &str = "#22304d";
const ROSE: &str = "#f3d3cb";
const SKY: &str = "#bfd9e6";
const GREY: &str = "#c4ced4";

const fn side(
    name: &'static str,
    scale: f64,
    busy: f64,
    direction: Direction,
    draw: fn() -> (f64, String),
) -> PaperSide {
    PaperSide {
        name,
        scale,
        busy,
        direction,
        draw,
    }
}

const fn thing(
    kind: &'static str,
    name: &'static str,
    count: u32,
    size: (f64, f64),
    sides: &'static [PaperSide],
) -> StashThing {
    StashThing {
        kind,
        name,
        count,
        size,
        sides,
        kit: None,
        strip: 0.0,
        bites: &[],
        kept: None,
        colours: &[],
        tool: None,
    }
}

impl StashThing {
    const fn of(mut self, kit: &'static str) -> StashThing {
        self.kit = Some(kit);
        self
    }

    const fn strip(mut self, width: f64) -> StashThing {
        self.strip = width;
        self
    }

    const fn bites(mut self, bites: &'static [[f64; 4]]) -> StashThing {
        self.bites = bites;
        self
    }

    const fn kept(mut self, place: &'static str) -> StashThing {
        self.kept = Some(place);
        self
    }

    const fn coloured(mut self, colours: &'static [&'static str]) -> StashThing {
        self.colours = colours;
        self
    }

    const fn tool(mut self, a: f64, b: f64) -> StashThing {
        self.tool = Some((a, b));
        self
    }
}

const fn sheet(name: &'static str, count: u32, sides: &'static [PaperSide]) -> StashThing {
    thing("sheet", name, count, (12.0, 12.0), sides)
}

const fn card(name: &'static str, count: u32, sides: &'static [PaperSide]) -> StashThing {
    thing("cardstock", name, count, (8.5, 11.0), sides)
}

/// All of it, in the order in which it was put away.
pub(super) const THINGS: [StashThing; 67] = [
    sheet(
        "Low water",
        4,
        &[
            side("Contours", 1.6, 0.35, "any", || {
                contours(FOG, "#a9c3c4", 11)
            }),
            side("Sand", 0.0, 0.04, "any", || plain(SAND, BARK, 12)),
        ],
    )
    .of("Ebb"),
    sheet(
        "Tiny kites",
        2,
        &[
            side("Tiny kites", 1.0, 0.62, "up", || {
                kites(CREAM, &[RED, MUSTARD, NAVY, TEAL], INK, 100.0, 21)
            }),
            side("Teal stripe", 0.3, 0.3, "down", || {
                stripes(&[(MINT, 14.0), (TEAL, 14.0)])
            }),
        ],
    )
    .of("Ebb")
    .strip(0.5),
    sheet(
        "Tide waves",
        3,
        &[
            side("Tide waves", 0.5, 0.42, "up", || {
                waves(TEAL, DEEP, MINT, 50.0)
            }),
            side("Red dots", 0.25, 0.25, "any", || {
                dots(CREAM, RED, 32.0, 4.5)
            }),
        ],
    )
    .of("Ebb")
    .strip(0.5),
    sheet(
        "Red gingham",
        1,
        &[
            side("Red gingham", 0.25, 0.34, "any", || {
                gingham(CHALK, RED, 12.5)
            }),
            side("Pencil lines", 0.25, 0.12, "across", || {
                ledger(CHALK, GREY, None)
            }),
        ],
    )
    .of("Ebb")
    .strip(0.5),
    sheet(
        "Snow on navy",
        2,
        &[
            side("Snow on navy", 0.2, 0.3, "any", || snow(NAVY, SNOW, 31)),
            side("Checks", 0.25, 0.28, "any", || {
                gingham(SNOW, "#7d9cc0", 12.5)
            }),
        ],
    )
    .of("Ebb")
    .strip(0.5),
    sheet(
        "Awning",
        1,
        &[
            side("Awning", 0.5, 0.32, "down", || {
                stripes(&[(MUSTARD, 22.0), (CREAM, 9.0), (MUSTARD, 5.0), (CREAM, 9.0)])
            }),
            side("Deep teal", 0.0, 0.03, "any", || plain(TEAL, DEEP, 41)),
        ],
    )
    .of("Ebb")
    .strip(0.5),
    sheet(
        "Tally book",
        2,
        &[
            side("Tally book", 0.25, 0.16, "across", || {
                ledger(CREAM, "#c9d4c0", Some(CORAL))
            }),
            side("Brown paper", 0.0, 0.05, "any", || plain(KRAFT, BARK, 51)),
        ],
    )
    .of("Ebb")
    .strip(0.5),
    sheet(
        "Flag day",
        1,
        &[
            side("Flag day", 0.3, 0.95, "any", || {
                festival(CORAL, &[NAVY, MUSTARD, CREAM, TEAL, RED, CHALK], 61)
            }),
            side("Straw", 0.0, 0.04, "any", || plain(STRAW, MUSTARD, 62)),
        ],
    )
    .of("Lantern")
    .strip(0.5),
    sheet(
        "Old boards",
        2,
        &[
            side("Old boards", 1.0, 0.38, "across", || {
                boards("#b98a5e", "#7d5433", "#5f3d24", 71)
            }),
            side("Grey boards", 1.0, 0.34, "across", || {
                boards("#b9c2c4", "#7e8b90", "#5f6b70", 72)
            }),
        ],
    )
    .of("Frost"),
    sheet(
        "Gulls",
        3,
        &[
            side("Gulls", 0.6, 0.3, "up", || gulls(SKY, CHALK, 60.0, 81)),
            side("Fog", 0.0, 0.04, "any", || plain(FOG, GREY, 82)),
        ],
    )
    .of("Frost")
    .strip(0.5),
    sheet(
        "Drying nets",
        2,
        &[
            side("Drying nets", 0.4, 0.28, "any", || {
                net(CREAM, "#8fa9a6", 40.0)
            }),
            side("Navy", 0.0, 0.03, "any", || plain(NAVY, "#4a5b86", 92)),
        ],
    )
    .of("Frost")
    .strip(0.5),
    sheet(
        "Reed bank",
        2,
        &[
            side("Reed bank", 0.6, 0.5, "up", || {
                reeds(CREAM, &["#7c8a4a", "#a08a3e", "#5b7052"], 101)
            }),
            side("Reed stripe", 0.4, 0.24, "down", || {
                stripes(&[
                    (CREAM, 16.0),
                    ("#a9b37c", 6.0),
                    (CREAM, 4.0),
                    ("#7c8a4a", 10.0),
                ])
            }),
        ],
    )
    .of("Frost")
    .strip(0.5),
    sheet(
        "Low sun",
        2,
        &[
            side("Low sun", 0.5, 0.4, "up", || suns(ROSE, MUSTARD, CORAL)),
            side("Rose wash", 3.0, 0.14, "any", || {
                wash(ROSE, &["#ecb9ac", CREAM, "#f3c9a4"], 112)
            }),
        ],
    )
    .of("Lantern")
    .strip(0.5),
    sheet(
        "Lantern row",
        2,
        &[
            side("Pennants", 0.5, 0.66, "up", || {
                pennants(NAVY, &[MUSTARD, RED, CREAM, CORAL], CREAM)
            }),
            side("Night dots", 0.2, 0.26, "any", || {
                dots(NAVY, MUSTARD, 24.0, 2.6)
            }),
        ],
    )
    .of("Lantern")
    .strip(0.5),
    sheet(
        "Bunting",
        2,
        &[
            side("Bunting", 0.5, 0.58, "up", || {
                pennants(CHALK, &[TEAL, CORAL, MUSTARD, NAVY], INK)
            }),
            side("Coral dots", 0.25, 0.24, "any", || {
                dots(CHALK, CORAL, 26.0, 4.2)
            }),
        ],
    )
    .of("Lantern")
    .strip(0.5),
    sheet(
        "Sledge stripe",
        3,
        &[
            side("Sledge stripe", 0.8, 0.36, "down", || {
                stripes(&[(CREAM, 30.0), (RED, 12.0), (CREAM, 6.0), (NAVY, 4.0)])
            }),
            side("Cream", 0.0, 0.02, "any", || plain(CREAM, SAND, 152)),
        ],
    )
    .of("Frost")
    .strip(0.5),
    sheet(
        "Big kites",
        1,
        &[
            side("Big kites", 2.4, 0.8, "up", || {
                kites(SKY, &[RED, MUSTARD, CHALK, TEAL], INK, 240.0, 161)
            }),
            side("Sky", 0.0, 0.03, "any", || plain(SKY, CHALK, 162)),
        ],
    )
    .of("Frost")
    .strip(0.5),
    sheet(
        "Teal gingham",
        2,
        &[
            side("Teal gingham", 0.5, 0.36, "any", || {
                gingham(CHALK, TEAL, 25.0)
            }),
            side("Mint", 0.0, 0.03, "any", || plain(MINT, TEAL, 172)),
        ],
    )
    .of("Ebb"),
    sheet(
        "Chart",
        2,
        &[
            side("Chart", 1.6, 0.4, "any", || contours(STRAW, "#c69a3c", 181)),
            side("Squared", 0.25, 0.16, "any", || net(CHALK, SKY, 25.0)),
        ],
    )
    .of("Ebb"),
    sheet(
        "Wet sand",
        3,
        &[
            side("Wet sand", 3.0, 0.16, "any", || {
                wash(SAND, &["#d8bd8c", CREAM, "#cbb08a"], 191)
            }),
            side("Ripples", 0.5, 0.3, "up", || {
                waves(SAND, "#d0b483", CREAM, 50.0)
            }),
        ],
    )
    .of("Ebb"),
    sheet(
        "Confetti",
        1,
        &[
            side("Confetti", 0.3, 0.86, "any", || {
                festival(CHALK, &[TEAL, CORAL, MUSTARD, SKY, RED], 201)
            }),
            side("Coral", 0.0, 0.03, "any", || plain(CORAL, RED, 202)),
        ],
    )
    .of("Lantern"),
    sheet(
        "Rope",
        2,
        &[
            side("Rope stripe", 0.3, 0.22, "down", || {
                stripes(&[(CHALK, 20.0), (KRAFT, 3.0), (CHALK, 4.0), (KRAFT, 3.0)])
            }),
            side("Kraft dots", 0.2, 0.2, "any", || {
                dots(KRAFT, CHALK, 22.0, 2.6)
            }),
        ],
    )
    .of("Frost"),
    sheet(
        "Night tide",
        2,
        &[
            side("Night tide", 0.5, 0.4, "up", || {
                waves(NAVY, "#2c4272", "#6f8db8", 50.0)
            }),
            side("Moonlight", 3.0, 0.14, "any", || {
                wash("#dfe6ee", &["#c4d1e2", CHALK, "#b4c4da"], 222)
            }),
        ],
    )
    .of("Frost"),
    sheet(
        "Gull notes",
        2,
        &[
            side("Gull notes", 0.4, 0.22, "up", || {
                gulls(CHALK, "#8fa4b4", 40.0, 231)
            }),
            side("Squared mint", 0.25, 0.16, "any", || net(MINT, CHALK, 25.0)),
        ],
    )
    .of("Ebb"),
    card(
        "Chalk card",
        12,
        &[side("Chalk", 0.0, 0.02, "any", || plain(CHALK, GREY, 301))],
    )
    .kept("the long drawer"),
    card(
        "Mustard card",
        5,
        &[side("Mustard", 0.0, 0.02, "any", || {
            plain(MUSTARD, BARK, 302)
        })],
    )
    .kept("the long drawer"),
    card(
        "Signal red card",
        3,
        &[side("Signal red", 0.0, 0.02, "any", || {
            plain("#c93f30", "#8f241a", 303)
        })],
    )
    .kept("the long drawer"),
    card(
        "Navy card",
        4,
        &[side("Navy", 0.0, 0.02, "any", || {
            plain(NAVY, "#4a5b86", 304)
        })],
    )
    .kept("the long drawer"),
    card(
        "Teal card",
        4,
        &[side("Teal", 0.0, 0.02, "any", || plain(TEAL, DEEP, 305))],
    )
    .kept("the long drawer"),
    card(
        "Kraft card",
        8,
        &[side("Kraft", 0.0, 0.03, "any", || plain(KRAFT, BARK, 306))],
    )
    .kept("the long drawer"),
    card(
        "Coral card",
        2,
        &[side("Coral", 0.0, 0.02, "any", || plain(CORAL, RED, 307))],
    )
    .kept("the long drawer"),
    card(
        "Sky card",
        6,
        &[side("Sky", 0.0, 0.02, "any", || plain(SKY, CHALK, 308))],
    )
    .kept("the long drawer"),
    card(
        "Slate card",
        3,
        &[side("Slate", 0.0, 0.02, "any", || {
            plain("#5b6b78", GREY, 309)
        })],
    )
    .kept("the long drawer"),
    card(
        "Black card",
        5,
        &[side("Black", 0.0, 0.02, "any", || {
            plain("#22222a", "#55555f", 310)
        })],
    )
    .kept("the long drawer"),
    thing(
        "pad",
        "Mist",
        18,
        (6.0, 6.0),
        &[
            side("Mist", 2.5, 0.14, "any", || {
                wash("#eef4f4", &["#cfe0e2", CHALK, "#bcd3d8"], 401)
            }),
            side("Straw", 0.0, 0.03, "any", || plain(STRAW, MUSTARD, 402)),
        ],
    )
    .of("Frost"),
    thing(
        "card",
        "Tide table cards",
        9,
        (3.0, 4.0),
        &[side("Tide table", 0.25, 0.2, "up", || {
            ledger(CHALK, SKY, Some(RED))
        })],
    )
    .of("Ebb"),
    thing(
        "card",
        "Weather cards",
        6,
        (4.0, 6.0),
        &[side("Weather", 3.0, 0.16, "any", || {
            wash(SKY, &[CHALK, "#a3c3d6"], 403)
        })],
    )
    .of("Lantern"),
    thing(
        "vellum",
        "Vellum",
        4,
        (8.5, 11.0),
        &[side("Vellum", 0.0, 0.02, "any", || {
            plain("#f4f7f7", GREY, 404)
        })],
    )
    .kept("the long drawer"),
    thing(
        "acetate",
        "Clear film",
        2,
        (8.5, 11.0),
        &[side("Clear", 0.0, 0.0, "any", || {
            plain("#fbfdfd", SNOW, 405)
        })],
    )
    .kept("the long drawer"),
    thing(
        "packaging",
        "Tea tin band",
        2,
        (11.0, 3.0),
        &[side("Tin", 0.4, 0.4, "down", || {
            stripes(&[(DEEP, 20.0), (MUSTARD, 4.0), (DEEP, 4.0), (MUSTARD, 12.0)])
        })],
    ),
    thing(
        "scrap",
        "Flag day, rest",
        1,
        (5.625, 9.0),
        &[side("Flag day", 0.3, 0.95, "any", || {
            festival(CORAL, &[NAVY, MUSTARD, CREAM, TEAL, RED, CHALK], 61)
        })],
    )
    .of("Lantern")
    .bites(&[[0.0, 7.75, 1.75, 1.25]]),
    thing(
        "scrap",
        "Old boards, rest",
        1,
        (12.0, 7.0),
        &[side("Old boards", 1.0, 0.38, "across", || {
            boards("#b98a5e", "#7d5433", "#5f3d24", 71)
        })],
    )
    .of("Frost")
    .bites(&[[7.0, 0.0, 5.0, 2.5], [0.0, 5.75, 3.0, 1.25]]),
    thing(
        "scrap",
        "Awning, strip",
        1,
        (12.0, 3.75),
        &[side("Awning", 0.5, 0.32, "down", || {
            stripes(&[(MUSTARD, 22.0), (CREAM, 9.0), (MUSTARD, 5.0), (CREAM, 9.0)])
        })],
    )
    .of("Ebb"),
    thing(
        "scrap",
        "Navy corner",
        1,
        (4.5, 4.5),
        &[side("Navy", 0.0, 0.03, "any", || {
            plain(NAVY, "#4a5b86", 92)
        })],
    ),
    thing("letters", "Cork capitals", 1, (4.0, 6.0), &[])
        .coloured(&["#b5562f"])
        .kept("the letter tin"),
    thing("letters", "Pebble letters", 1, (4.0, 6.0), &[])
        .coloured(&["#8d9398"])
        .kept("the letter tin"),
    thing("embellishment", "Doilies", 6, (1.5, 1.5), &[]).coloured(&[CHALK]),
    thing("embellishment", "Leaves", 9, (1.0, 0.5), &[])
        .coloured(&["#7c8a4a"])
        .of("Frost"),
    thing("embellishment", "Tags", 4, (1.0, 2.0), &[]).coloured(&[KRAFT]),
    thing("embellishment", "Wooden kites", 5, (0.75, 1.0), &[])
        .coloured(&[RED, NAVY, TEAL])
        .of("Ebb"),
    thing("embellishment", "Sledges", 2, (1.25, 0.75), &[])
        .coloured(&[BARK])
        .of("Frost"),
    thing("embellishment", "Stars", 3, (0.5, 0.5), &[])
        .coloured(&[MUSTARD])
        .of("Lantern"),
    thing("embellishment", "Buttons", 26, (0.5, 0.5), &[]).coloured(&[NAVY, RED, TEAL]),
    thing("tool", "Trimmer", 1, (0.0, 0.0), &[]).tool(12.0, 0.0625),
    thing("tool", "Scissors", 1, (0.0, 0.0), &[]),
    thing("tool", "Round punch", 1, (0.0, 0.0), &[]).tool(1.0, 1.0),
    thing("tool", "Kite die", 1, (0.0, 0.0), &[]).tool(2.75, 3.5),
    thing("tool", "Spray and ink", 1, (0.0, 0.0), &[]),
    // Ids go by place: what came later stands at the end.
    thing("letters", "Tide script", 1, (4.0, 6.0), &[])
        .coloured(&[TEAL])
        .of("Ebb"),
    thing("letters", "Lamp capitals", 1, (5.0, 7.0), &[])
        .coloured(&[BARK])
        .of("Lantern"),
    thing("letters", "Harbour stamps", 1, (3.0, 5.0), &[])
        .coloured(&[INK])
        .kept("the stamp drawer"),
    thing("letters", "Plain type", 1, (0.0, 0.0), &[]).coloured(&[INK]),
    thing("embellishment", "Film kites", 4, (0.875, 1.25), &[])
        .coloured(&[CORAL, NAVY])
        .of("Ebb"),
    thing("embellishment", "Pennants", 6, (0.75, 1.0), &[])
        .coloured(&[TEAL])
        .of("Ebb"),
    thing("embellishment", "Hold the line", 1, (1.75, 0.375), &[])
        .coloured(&[NAVY])
        .of("Ebb"),
    thing("embellishment", "Slack water", 1, (1.5, 0.375), &[])
        .coloured(&[CHALK])
        .of("Ebb"),
    thing("embellishment", "Red dots", 40, (0.1875, 0.1875), &[])
        .coloured(&[RED])
        .of("Lantern"),
];
