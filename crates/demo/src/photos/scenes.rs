//! The photos' scenes, as SVG of so many units across and down.

use super::figures::{
    CREAM, DUNLIN, INK, KNOT, PLOVER, RED, TEAL, TEAL_MAKER, WREN, YELLOW, bin, bust, dog, far,
    kite, lantern, mug, runner, sledge,
};
use std::fmt::Write;

/// The light of a scene: sky from above to the horizon, and the flats below it.
#[derive(Clone, Copy)]
struct Light {
    sky: [&'static str; 3],
    flats: [&'static str; 2],
    /// Where the sun stands, across and down, as shares; none when it has set.
    sun: Option<(f64, f64)>,
}

const LOW_SUN: Light = Light {
    sky: ["#7fa6c9", "#f3d9a4", "#f7b765"],
    flats: ["#c99765", "#7a6456"],
    sun: Some((0.66, 0.5)),
};
const NOON: Light = Light {
    sky: ["#7fb3da", "#b9d7ea", "#e6eef0"],
    flats: ["#d9c7a2", "#a58f70"],
    sun: None,
};
const DUSK: Light = Light {
    sky: ["#1c2247", "#5a3f73", "#d9765f"],
    flats: ["#4b3a5c", "#1e1f3b"],
    sun: None,
};

/// Sky and flats with the horizon at a share of the height, all else drawn over them.
fn outdoors((w, h): (f64, f64), light: Light, horizon: f64, over: &str) -> String {
    let Light { sky, flats, sun } = light;
    let at = h * horizon;
    let shine = sun.map_or(String::new(), |(x, y)| {
        let (x, y, r) = (x * w, y * h, w.min(h) * 0.055);
        format!(
            r##"<circle cx="{x}" cy="{y}" r="{}" fill="#fff2c4" opacity=".28"/><circle cx="{x}" cy="{y}" r="{}" fill="#fff2c4" opacity=".35"/><circle cx="{x}" cy="{y}" r="{r}" fill="#fffbe8"/>
<path d="M{} {at}L{} {h}H{}L{} {at}Z" fill="#ffe9ae" opacity=".35"/>"##,
            r * 4.2,
            r * 2.2,
            x - r * 0.7,
            x - r * 2.4,
            x + r * 2.4,
            x + r * 0.7
        )
    });
    let mut water = String::new();
    for n in 0..9 {
        let t = f64::from(n);
        let y = at + (h - at) * (0.06 + 0.1 * t);
        let x = w * (0.5 + 0.42 * (t * 2.3).sin());
        let half = w * (0.1 + 0.03 * t);
        let _ = write!(
            water,
            r##"<ellipse cx="{x}" cy="{y}" rx="{half}" ry="{}" fill="#ffffff" opacity=".13"/>"##,
            h * 0.006
        );
    }
    let mut clouds = String::new();
    for (x, y, r) in [(0.18, 0.16, 0.1), (0.3, 0.19, 0.13), (0.78, 0.1, 0.12)] {
        let _ = write!(
            clouds,
            r##"<ellipse cx="{}" cy="{}" rx="{}" ry="{}" fill="#ffffff" opacity=".2"/>"##,
            x * w,
            y * at,
            r * w,
            r * w * 0.22
        );
    }
    svg(
        (w, h),
        &format!(
            r##"<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="{}"/><stop offset=".62" stop-color="{}"/><stop offset="1" stop-color="{}"/></linearGradient>
<linearGradient id="flats" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="{}"/><stop offset="1" stop-color="{}"/></linearGradient></defs>
<rect width="{w}" height="{at}" fill="url(#sky)"/>{clouds}<rect y="{at}" width="{w}" height="{}" fill="url(#flats)"/>{shine}{water}{over}"##,
            sky[0],
            sky[1],
            sky[2],
            flats[0],
            flats[1],
            h - at
        ),
    )
}

fn svg((w, h): (f64, f64), inner: &str) -> String {
    format!(r##"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {w} {h}">{inner}</svg>"##)
}

/// Somebody every so often along the horizon.
fn crowd(w: f64, y: f64, count: u32) -> String {
    (0..count)
        .map(|n| {
            let t = f64::from(n);
            let x = w * ((t * 0.618_034 + 0.05) % 1.0);
            far(
                x,
                y + 6.0 + (t * 1.7).sin() * 5.0,
                34.0 + (t * 2.9).sin() * 8.0,
            )
        })
        .collect()
}

/// Kites of all sizes over a width and height.
fn sky_of_kites(w: f64, h: f64, count: u32, size: f64) -> String {
    let colours = [(RED, CREAM), (TEAL, YELLOW), (CREAM, INK), (YELLOW, RED)];
    (0..count)
        .map(|n| {
            let t = f64::from(n);
            let x = w * (0.08 + 0.84 * ((t * 0.618_034) % 1.0));
            let y = h * (0.14 + 0.6 * ((t * 0.381_966 + 0.2) % 1.0));
            let s = size * (0.5 + 0.6 * ((t * 0.73) % 1.0));
            kite(x, y, s, 20.0 * (t * 1.3).sin(), colours[n as usize % 4])
        })
        .collect()
}

pub(super) fn kite_and_face() -> String {
    let (w, h) = (1200.0, 1600.0);
    let over = format!(
        "{}{}<path d=\"M520 560C600 800 640 1000 660 1150\" fill=\"none\" stroke=\"{INK}\" stroke-width=\"3\"/>{}{}{}",
        crowd(w, 930.0, 12),
        kite(500.0, 420.0, 400.0, 16.0, (CREAM, RED)),
        bin(130.0, 1300.0, 230.0),
        bust(630.0, 1290.0, 240.0, WREN),
        format_args!(
            r##"<path d="M1060 1600C1050 1280 1100 1120 1200 1100V1600Z" fill="#41547a"/>"##
        ),
    );
    outdoors((w, h), LOW_SUN, 0.58, &over)
}

pub(super) fn tea_urn() -> String {
    let (w, h) = (800.0, 1200.0);
    let cloth: String = (0..10)
        .flat_map(|c| (0..4).map(move |r| (c, r)))
        .filter(|(c, r)| (c + r) % 2 == 0)
        .map(|(c, r)| {
            format!(
                r##"<rect x="{}" y="{}" width="80" height="80" fill="{RED}" opacity=".75"/>"##,
                c * 80,
                920 + r * 80
            )
        })
        .collect();
    let flags: String = (0..9)
        .map(|n| {
            let x = f64::from(n) * 95.0;
            let fill = [RED, YELLOW, TEAL, CREAM][n as usize % 4];
            format!(r##"<path d="M{x} 70h70l-35 80z" fill="{fill}"/>"##)
        })
        .collect();
    let over = format!(
        r##"{flags}<path d="M0 72H800" stroke="{INK}" stroke-width="4"/><rect y="900" width="800" height="300" fill="#f4ece0"/>{cloth}
<path d="M250 880C236 640 250 470 290 420H510C550 470 564 640 550 880Z" fill="#b8bec6"/><path d="M300 430C280 520 276 760 288 880H330C318 760 322 520 344 430Z" fill="#eef1f4"/><ellipse cx="400" cy="420" rx="118" ry="30" fill="#d8dde2"/>
<path d="M330 400C340 350 460 350 470 400Z" fill="#9aa2ac"/><circle cx="400" cy="350" r="20" fill="{INK}"/><path d="M246 520C180 520 180 640 250 650M554 520C620 520 620 640 550 650" fill="none" stroke="{INK}" stroke-width="22"/>
<rect x="380" y="780" width="40" height="62" rx="8" fill="#8f6a2e"/><rect x="250" y="860" width="300" height="40" rx="8" fill="#7f868f"/><path d="M400 330C372 280 432 250 402 200" fill="none" stroke="#ffffff" stroke-width="16" opacity=".5" stroke-linecap="round"/>{}{}{}"##,
        mug(140.0, 1010.0, 150.0, TEAL),
        mug(640.0, 1030.0, 160.0, RED),
        mug(400.0, 1080.0, 150.0, YELLOW)
    );
    outdoors((w, h), NOON, 0.62, &over)
}

pub(super) fn sledge_race() -> String {
    let (w, h) = (1500.0, 1000.0);
    let over = format!(
        r##"{}{}<path d="M1010 760L760 700M520 800L330 730" stroke="{INK}" stroke-width="7"/>{}{}{}{}{}<path d="M60 900C400 860 800 940 1440 880" fill="none" stroke="#ffffff" stroke-width="12" opacity=".35"/>"##,
        crowd(w, 470.0, 22),
        sky_of_kites(w, 360.0, 5, 90.0),
        sledge(1120.0, 830.0, 330.0),
        bust(1110.0, 730.0, 150.0, DUNLIN),
        runner(690.0, 850.0, 380.0, KNOT, true),
        sledge(560.0, 880.0, 250.0),
        runner(270.0, 890.0, 420.0, WREN, true),
    );
    outdoors((w, h), NOON, 0.46, &over)
}

pub(super) fn lanterns_at_dusk() -> String {
    let (w, h) = (1200.0, 900.0);
    let row: String = (0..7)
        .map(|n| {
            let t = f64::from(n);
            let colour = ["#f6b64c", "#e86f4a", "#f3d98a"][n as usize % 3];
            lantern(
                110.0 + t * 164.0,
                210.0 + (t - 3.0).powi(2) * -9.0 + 80.0,
                105.0,
                colour,
            )
        })
        .collect();
    let people: String = (0..6)
        .map(|n| {
            far(
                200.0 + f64::from(n) * 165.0,
                760.0,
                190.0 + f64::from(n % 3) * 22.0,
            )
        })
        .collect();
    let over = format!(
        r##"<path d="M0 200Q600 360 1200 200" fill="none" stroke="{INK}" stroke-width="5"/>{people}{row}"##
    );
    outdoors((w, h), DUSK, 0.7, &over)
}

pub(super) fn group_of_five() -> String {
    let (w, h) = (1500.0, 1000.0);
    let over = format!(
        "{}{}{}{}{}{}{}",
        crowd(w, 440.0, 16),
        sky_of_kites(w, 300.0, 4, 110.0),
        bust(300.0, 640.0, 260.0, TEAL_MAKER),
        bust(1210.0, 650.0, 260.0, PLOVER),
        bust(540.0, 730.0, 280.0, WREN),
        bust(960.0, 740.0, 280.0, DUNLIN),
        bust(755.0, 660.0, 250.0, KNOT),
    );
    outdoors((w, h), LOW_SUN, 0.43, &over)
}

pub(super) fn kites_far_off() -> String {
    let (w, h) = (1200.0, 900.0);
    let over = format!(
        "{}{}",
        sky_of_kites(w, 560.0, 14, 80.0),
        crowd(w, 640.0, 30)
    );
    outdoors((w, h), NOON, 0.7, &over)
}

pub(super) fn gloved_hands() -> String {
    let (w, h) = (900.0, 1200.0);
    let glove = |x: f64, flip: f64| {
        format!(
            r##"<g transform="translate({x} 760) scale({flip} 1)"><path d="M-120 440L-104 90C-100 -20 60 -40 84 60L104 190C110 260 60 300 40 440Z" fill="{RED}"/><path d="M64 60C120 30 158 76 140 150L98 200Z" fill="{RED}"/><path d="M-92 60C-80 -96 -20 -96 -16 34M-22 20C-16 -120 44 -116 46 26" fill="{RED}" stroke="#a62e20" stroke-width="7"/>
<rect x="-130" y="330" width="186" height="110" fill="{CREAM}"/></g>"##
        )
    };
    let over = format!(
        r##"{}{}<rect x="330" y="560" width="240" height="150" rx="26" fill="#c98f4f"/><path d="M344 580H556M344 610H556M344 640H556M344 670H556" stroke="{CREAM}" stroke-width="14"/><path d="M450 560C470 380 560 200 640 90" fill="none" stroke="{CREAM}" stroke-width="6"/>"##,
        glove(250.0, 1.0),
        glove(650.0, -1.0),
    );
    outdoors((w, h), LOW_SUN, 0.5, &over)
}

pub(super) fn low_sun() -> String {
    let (w, h) = (1600.0, 1200.0);
    let over = format!(
        r##"<path d="M820 720C700 800 1040 860 760 980C560 1060 700 1160 640 1200H900C860 1120 1060 1040 1000 960C900 860 1000 800 860 720Z" fill="#ffe9c0" opacity=".55"/>{}{}"##,
        crowd(w, 722.0, 18),
        sky_of_kites(w, 480.0, 3, 70.0)
    );
    outdoors((w, h), LOW_SUN, 0.6, &over)
}

pub(super) fn dog_on_sand() -> String {
    let (w, h) = (1200.0, 900.0);
    let over = format!(
        r##"{}{}<g fill="#6b5340" opacity=".6"><ellipse cx="180" cy="800" rx="22" ry="9"/><ellipse cx="260" cy="780" rx="22" ry="9"/><ellipse cx="330" cy="806" rx="22" ry="9"/></g>"##,
        crowd(w, 400.0, 14),
        dog(640.0, 740.0, 330.0)
    );
    outdoors((w, h), NOON, 0.43, &over)
}

pub(super) fn red_kite() -> String {
    let (w, h) = (900.0, 1200.0);
    let over = format!(
        "{}{}",
        kite(470.0, 420.0, 620.0, -14.0, (RED, YELLOW)),
        crowd(w, 1110.0, 9)
    );
    outdoors((w, h), NOON, 0.91, &over)
}

pub(super) fn flags_drying() -> String {
    let (w, h) = (1500.0, 1000.0);
    let mut flags = String::new();
    for n in 0..6 {
        let x = 110.0 + f64::from(n) * 225.0;
        let (a, b) = [(RED, CREAM), (TEAL, YELLOW), (YELLOW, INK)][n as usize % 3];
        let _ = write!(
            flags,
            r##"<path d="M{x} 330C{} 350 {} 320 {} 340L{} 640C{} 610 {} 660 {x} 630Z" fill="{a}"/><path d="M{x} 430C{} 450 {} 420 {} 440L{} 530C{} 510 {} 550 {x} 530Z" fill="{b}"/><rect x="{}" y="312" width="14" height="40" fill="#b9793f"/>"##,
            x + 60.0,
            x + 110.0,
            x + 165.0,
            x + 165.0,
            x + 110.0,
            x + 60.0,
            x + 60.0,
            x + 110.0,
            x + 165.0,
            x + 165.0,
            x + 110.0,
            x + 60.0,
            x + 20.0
        );
    }
    let over = format!(
        r##"<path d="M40 330H1460M60 320V900M1440 320V900" stroke="#5a3a22" stroke-width="14"/>{flags}{}"##,
        far(760.0, 900.0, 240.0)
    );
    outdoors((w, h), NOON, 0.72, &over)
}

pub(super) fn footprints() -> String {
    let (w, h) = (900.0, 1200.0);
    let prints: String = (0..12)
        .map(|n| {
            let t = f64::from(n);
            let s = 1.0 - t * 0.06;
            let x = 450.0 + if n % 2 == 0 { -70.0 } else { 70.0 } * s + t * 9.0;
            let y = 1120.0 - t * 66.0 * (1.0 - t * 0.018);
            format!(
                r##"<g fill="#6b5340" opacity=".72"><ellipse cx="{x}" cy="{y}" rx="{}" ry="{}"/><ellipse cx="{x}" cy="{}" rx="{}" ry="{}"/></g>"##,
                26.0 * s, 34.0 * s, y + 46.0 * s, 18.0 * s, 16.0 * s
            )
        })
        .collect();
    let light = Light {
        sun: Some((0.7, 0.22)),
        ..LOW_SUN
    };
    let over = format!("{}{prints}", far(560.0, 400.0, 130.0));
    outdoors((w, h), light, 0.3, &over)
}

pub(super) fn two_mugs() -> String {
    let (w, h) = (1000.0, 1000.0);
    let planks: String = (0..6)
        .map(|n| {
            format!(
                r##"<rect y="{}" width="1000" height="160" fill="{}"/>"##,
                n * 168,
                ["#a8754a", "#9b6a41", "#b07d52"][n as usize % 3]
            )
        })
        .collect();
    let biscuits: String = [(180.0, 860.0), (300.0, 900.0), (240.0, 800.0)]
        .iter()
        .map(|(x, y)| format!(r##"<circle cx="{x}" cy="{y}" r="58" fill="#d9a860"/><circle cx="{x}" cy="{y}" r="40" fill="none" stroke="#b98642" stroke-width="6" stroke-dasharray="9 12"/>"##))
        .collect();
    svg(
        (w, h),
        &format!(
            "{planks}{biscuits}{}{}",
            mug(360.0, 700.0, 340.0, TEAL),
            mug(690.0, 780.0, 360.0, RED)
        ),
    )
}

pub(super) fn boots() -> String {
    let (w, h) = (800.0, 600.0);
    let boot = |x: f64, colour: &str| {
        format!(
            r##"<g transform="translate({x} 470)"><path d="M-60 -330H60V-90C120 -80 170 -40 170 0H-60Z" fill="{colour}"/><rect x="-70" y="-340" width="140" height="36" rx="10" fill="#ffffff55"/><rect x="-66" y="-10" width="244" height="28" rx="10" fill="{INK}"/></g>"##
        )
    };
    let over = format!(
        "{}{}<ellipse cx=\"420\" cy=\"520\" rx=\"340\" ry=\"44\" fill=\"#6b5340\" opacity=\".55\"/>",
        boot(250.0, YELLOW),
        boot(500.0, YELLOW)
    );
    outdoors((w, h), NOON, 0.3, &over)
}

pub(super) fn with_sledge() -> String {
    let (w, h) = (900.0, 1200.0);
    let over = format!(
        r##"{}{}<rect x="385" y="720" width="42" height="330" rx="18" fill="{INK}"/><rect x="475" y="720" width="42" height="330" rx="18" fill="{INK}"/>{}{}<path d="M560 760L700 1000" stroke="{INK}" stroke-width="8"/>"##,
        crowd(w, 640.0, 14),
        kite(210.0, 220.0, 170.0, -18.0, (TEAL, YELLOW)),
        bust(450.0, 560.0, 250.0, PLOVER),
        sledge(720.0, 1060.0, 280.0),
    );
    outdoors((w, h), LOW_SUN, 0.53, &over)
}

pub(super) fn lantern_close() -> String {
    let (w, h) = (900.0, 1200.0);
    let over = format!(
        "{}{}{}",
        far(180.0, 1080.0, 300.0),
        far(720.0, 1080.0, 280.0),
        lantern(450.0, 180.0, 760.0, "#f2a63c")
    );
    outdoors((w, h), DUSK, 0.84, &over)
}
