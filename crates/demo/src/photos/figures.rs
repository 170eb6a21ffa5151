//! What the festival's photos show, each as a piece of SVG: people, kites, a sledge, a dog, lanterns and tea.

use std::fmt::Write;

pub(super) const INK: &str = "#1d2b44";
pub(super) const RED: &str = "#d8412f";
pub(super) const YELLOW: &str = "#f2b632";
pub(super) const TEAL: &str = "#2f8f8b";
pub(super) const CREAM: &str = "#f8f0dc";

/// Somebody in winter clothes.
#[derive(Clone, Copy)]
pub(super) struct Person {
    pub(super) skin: &'static str,
    pub(super) coat: &'static str,
    pub(super) hat: &'static str,
    pub(super) scarf: &'static str,
    pub(super) glasses: bool,
}

pub(super) const WREN: Person = Person {
    skin: "#f2c9a8",
    coat: "#edb92e",
    hat: "#d8412f",
    scarf: "#f8f0dc",
    glasses: false,
};
pub(super) const TEAL_MAKER: Person = Person {
    skin: "#8d5b3f",
    coat: "#2f8f8b",
    hat: "#1d2b44",
    scarf: "#f2b632",
    glasses: true,
};
pub(super) const PLOVER: Person = Person {
    skin: "#d9a07a",
    coat: "#5a6fa8",
    hat: "#f8f0dc",
    scarf: "#d8412f",
    glasses: false,
};
pub(super) const KNOT: Person = Person {
    skin: "#6f4630",
    coat: "#b4543f",
    hat: "#2f8f8b",
    scarf: "#f8f0dc",
    glasses: false,
};
pub(super) const DUNLIN: Person = Person {
    skin: "#f6d7c0",
    coat: "#3d4f74",
    hat: "#f2b632",
    scarf: "#2f8f8b",
    glasses: true,
};

/// Head and shoulders, the chin at a place; a head is `s` high.
pub(super) fn bust(x: f64, y: f64, s: f64, who: Person) -> String {
    let Person {
        skin,
        coat,
        hat,
        scarf,
        glasses,
    } = who;
    let spectacles = if glasses {
        r##"<g fill="none" stroke="#1d2b44" stroke-width="5"><circle cx="-20" cy="-46" r="15"/><circle cx="20" cy="-46" r="15"/><path d="M-5 -48H5"/></g>"##
    } else {
        ""
    };
    format!(
        r##"<g transform="translate({x} {y}) scale({k})"><path d="M-96 170C-98 60 -70 14 0 10C70 14 98 60 96 170Z" fill="{coat}"/>
<path d="M-6 40V170" stroke="#00000022" stroke-width="5"/><ellipse cx="0" cy="-46" rx="52" ry="58" fill="{skin}"/>
<circle cx="-19" cy="-48" r="5" fill="{INK}"/><circle cx="19" cy="-48" r="5" fill="{INK}"/>{spectacles}
<circle cx="0" cy="-32" r="10" fill="#e4674f"/><path d="M-20 -14C-8 0 8 0 20 -14" fill="none" stroke="#8e3b2e" stroke-width="6" stroke-linecap="round"/>
<circle cx="-36" cy="-26" r="9" fill="#f09a84" opacity=".6"/><circle cx="36" cy="-26" r="9" fill="#f09a84" opacity=".6"/>
<path d="M-56 -66C-58 -132 58 -132 56 -66Z" fill="{hat}"/><rect x="-60" y="-80" width="120" height="24" rx="11" fill="{CREAM}"/><circle cx="0" cy="-124" r="17" fill="{CREAM}"/>
<path d="M-62 2C-30 26 30 26 62 2L58 30C28 48 -28 48 -58 30Z" fill="{scarf}"/><path d="M24 26L52 96L26 104L8 36Z" fill="{scarf}"/></g>"##,
        k = s / 150.0
    )
}

/// Somebody running, feet at a place, so high.
pub(super) fn runner(x: f64, y: f64, s: f64, who: Person, leftwards: bool) -> String {
    let Person {
        skin,
        coat,
        hat,
        scarf,
        ..
    } = who;
    let k = s / 200.0;
    let across = if leftwards { -k } else { k };
    format!(
        r##"<g transform="translate({x} {y}) scale({across} {k})"><path d="M-8 -80L-46 -40L-76 -46M8 -80L34 -38L30 0" fill="none" stroke="{INK}" stroke-width="22" stroke-linecap="round" stroke-linejoin="round"/>
<path d="M-30 -82C-34 -140 -8 -162 20 -156C38 -150 34 -100 28 -78Z" fill="{coat}"/><path d="M18 -138L62 -116M-14 -136L-50 -108" stroke="{coat}" stroke-width="19" stroke-linecap="round"/>
<path d="M-24 -150L-78 -166L-70 -142L-20 -136Z" fill="{scarf}"/><circle cx="18" cy="-176" r="25" fill="{skin}"/><circle cx="30" cy="-178" r="3.4" fill="{INK}"/><circle cx="40" cy="-172" r="5" fill="#e4674f"/>
<path d="M-8 -182C-8 -216 42 -216 42 -184Z" fill="{hat}"/><circle cx="14" cy="-208" r="8" fill="{CREAM}"/></g>"##
    )
}

/// Somebody far off: a mark against the light.
pub(super) fn far(x: f64, y: f64, s: f64) -> String {
    format!(
        r##"<g fill="#33415f"><circle cx="{x}" cy="{}" r="{}"/><path d="M{} {y}L{} {}H{}L{} {y}Z"/></g>"##,
        y - s * 0.9,
        s * 0.13,
        x - s * 0.16,
        x - s * 0.13,
        y - s * 0.75,
        x + s * 0.13,
        x + s * 0.16
    )
}

/// A kite of two colours, `s` high, with a tail of bows.
pub(super) fn kite(x: f64, y: f64, s: f64, turn: f64, colours: (&str, &str)) -> String {
    let (a, b) = colours;
    let mut bows = String::new();
    for n in 0..5 {
        let t = f64::from(n);
        let (bx, by) = (-(t + 1.0) * 17.0 + (t * 1.9).sin() * 20.0, 96.0 + t * 34.0);
        let fill = [RED, YELLOW, TEAL][n as usize % 3];
        let _ = write!(
            bows,
            r##"<path d="M{bx} {by}l-20 -11v22zM{bx} {by}l20 -11v22z" fill="{fill}"/>"##
        );
    }
    format!(
        r##"<g transform="translate({x} {y}) rotate({turn}) scale({k})"><path d="M0 74C-20 120 10 150 -44 196S-60 250 -92 262" fill="none" stroke="{INK}" stroke-width="3"/>{bows}
<path d="M0 -90L62 -16L0 78L-62 -16Z" fill="{a}"/><path d="M0 -90L62 -16H0ZM0 78L-62 -16H0Z" fill="{b}"/><path d="M0 -90V78M-62 -16H62" stroke="{INK}" stroke-width="3" opacity=".5"/>
<circle cx="0" cy="-16" r="20" fill="{CREAM}"/><circle cx="0" cy="-16" r="9" fill="{RED}"/></g>"##,
        k = s / 168.0
    )
}

/// A sledge, its runner's middle at a place.
pub(super) fn sledge(x: f64, y: f64, s: f64) -> String {
    format!(
        r##"<g transform="translate({x} {y}) scale({k})"><path d="M-96 0H84C104 0 110 -26 92 -34" fill="none" stroke="#5a3a22" stroke-width="10" stroke-linecap="round"/>
<path d="M-74 0V-26M-10 0V-26M54 0V-26" stroke="#5a3a22" stroke-width="9"/><rect x="-100" y="-40" width="186" height="15" rx="6" fill="#b9793f"/></g>"##,
        k = s / 200.0
    )
}

/// A dog that runs, feet at a place.
pub(super) fn dog(x: f64, y: f64, s: f64) -> String {
    format!(
        r##"<g transform="translate({x} {y}) scale({k})"><path d="M-70 -60C-60 -96 50 -100 74 -70L66 -40C20 -30 -40 -30 -70 -46Z" fill="#8a5a34"/>
<path d="M-62 -50L-96 -8M-40 -42L-50 0M46 -44L80 -4M62 -50L104 -22" stroke="#8a5a34" stroke-width="17" stroke-linecap="round"/><path d="M-70 -62C-104 -74 -116 -104 -108 -122" fill="none" stroke="#8a5a34" stroke-width="13" stroke-linecap="round"/>
<path d="M62 -70C66 -112 112 -118 124 -92L150 -82C152 -66 128 -60 108 -62Z" fill="#9c6a40"/><path d="M76 -104C60 -110 52 -84 62 -70Z" fill="#5f3c21"/><circle cx="104" cy="-94" r="5" fill="{INK}"/><circle cx="150" cy="-80" r="6" fill="{INK}"/>
<path d="M128 -64C132 -48 144 -48 146 -60Z" fill="#e4674f"/><path d="M60 -80L84 -52L70 -42L52 -66Z" fill="{RED}"/></g>"##,
        k = s / 120.0
    )
}

/// A lantern that glows, hanging from a place.
pub(super) fn lantern(x: f64, y: f64, s: f64, colour: &str) -> String {
    format!(
        r##"<g transform="translate({x} {y}) scale({k})"><circle cx="0" cy="62" r="130" fill="{colour}" opacity=".16"/><circle cx="0" cy="62" r="82" fill="{colour}" opacity=".22"/>
<path d="M0 0V16" stroke="{INK}" stroke-width="4"/><rect x="-22" y="14" width="44" height="11" rx="4" fill="{INK}"/><ellipse cx="0" cy="62" rx="46" ry="40" fill="{colour}"/><ellipse cx="0" cy="62" rx="20" ry="40" fill="#fff4cf" opacity=".75"/>
<path d="M-46 62H46M-40 42H40M-40 82H40" stroke="#00000022" stroke-width="3"/><rect x="-20" y="98" width="40" height="9" rx="4" fill="{INK}"/></g>"##,
        k = s / 110.0
    )
}

/// A mug that steams, its foot at a place.
pub(super) fn mug(x: f64, y: f64, s: f64, colour: &str) -> String {
    format!(
        r##"<g transform="translate({x} {y}) scale({k})"><path d="M36 -70C76 -74 76 -22 34 -26" fill="none" stroke="{colour}" stroke-width="13"/><rect x="-42" y="-90" width="84" height="90" rx="12" fill="{colour}"/>
<ellipse cx="0" cy="-88" rx="40" ry="10" fill="#6d4424"/><path d="M-42 -44H42" stroke="#ffffff66" stroke-width="9"/><path d="M-14 -108C-26 -128 -2 -138 -14 -160M12 -108C0 -128 24 -138 12 -160" fill="none" stroke="#ffffff" stroke-width="7" opacity=".6" stroke-linecap="round"/></g>"##,
        k = s / 100.0
    )
}

/// A rubbish bin, which nobody wants in the picture.
pub(super) fn bin(x: f64, y: f64, s: f64) -> String {
    format!(
        r##"<g transform="translate({x} {y}) scale({k})"><path d="M-38 -92H38L30 0H-30Z" fill="#2f5a41"/><rect x="-44" y="-106" width="88" height="16" rx="6" fill="#274b36"/><path d="M-18 -80L-14 -10M0 -80V-10M18 -80L14 -10" stroke="#ffffff44" stroke-width="5"/></g>"##,
        k = s / 106.0
    )
}
