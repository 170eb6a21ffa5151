//! Letters and writing lines: found and taken out before shapes are traced, so that no stroke of a letter is taken for an edge.

use crate::plane::{Mask, Part, Parts};
use crate::sheet::Sheet;

/// An upright extent in pixels.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Extent {
    pub(crate) x0: f64,
    pub(crate) y0: f64,
    pub(crate) x1: f64,
    pub(crate) y1: f64,
}

impl Extent {
    pub(crate) fn w(&self) -> f64 {
        self.x1 - self.x0
    }

    pub(crate) fn h(&self) -> f64 {
        self.y1 - self.y0
    }

    pub(crate) fn area(&self) -> f64 {
        self.w().max(0.0) * self.h().max(0.0)
    }

    pub(crate) fn middle(&self) -> [f64; 2] {
        [(self.x0 + self.x1) / 2.0, (self.y0 + self.y1) / 2.0]
    }

    pub(crate) fn with(&self, o: &Extent) -> Extent {
        Extent {
            x0: self.x0.min(o.x0),
            y0: self.y0.min(o.y0),
            x1: self.x1.max(o.x1),
            y1: self.y1.max(o.y1),
        }
    }

    pub(crate) fn common(&self, o: &Extent) -> f64 {
        (self.x1.min(o.x1) - self.x0.max(o.x0)).max(0.0)
            * (self.y1.min(o.y1) - self.y0.max(o.y0)).max(0.0)
    }

    pub(crate) fn holds(&self, p: [f64; 2]) -> bool {
        p[0] >= self.x0 && p[0] <= self.x1 && p[1] >= self.y0 && p[1] <= self.y1
    }

    /// Moved out on every side.
    pub(crate) fn grown(&self, by: f64) -> Extent {
        Extent {
            x0: self.x0 - by,
            y0: self.y0 - by,
            x1: self.x1 + by,
            y1: self.y1 + by,
        }
    }

    pub(crate) fn of(p: &Part) -> Extent {
        Extent {
            x0: p.x0 as f64,
            y0: p.y0 as f64,
            x1: p.x1 as f64 + 1.0,
            y1: p.y1 as f64 + 1.0,
        }
    }
}

/// A word or line of letters, or a stack of writing lines.
#[derive(Debug, Clone)]
pub(crate) struct Writing {
    pub(crate) extent: Extent,
    pub(crate) lines: bool,
    /// How many letters or lines.
    pub(crate) count: usize,
}

/// Finds letters and writing lines, and takes their ink out of the mask.
pub(crate) fn take_out(sheet: &Sheet, mask: &mut Mask) -> Vec<Writing> {
    let mut dark = mask.clone();
    // Letters are fatter than strokes: a wider black-hat fills them.
    let fat = sheet.gray.black_hat(22);
    for (seen, &fat) in dark.data.iter_mut().zip(&fat.data) {
        *seen |= fat > 95.0;
    }
    sheet.clear_frame(&mut dark);
    let parts = dark.connected_components(true);
    let letters: Vec<Letter> = parts
        .each()
        .filter(|(_, p)| of_letter_size(p))
        .map(|(label, part)| Letter {
            label,
            part,
            outline: is_outline(&parts, label, &part),
        })
        .collect();
    let strokes: Vec<(u32, Part)> = parts
        .each()
        .filter(|(_, p)| may_be_line(p, dark.w))
        .collect();
    let mut found = Vec::new();
    let mut gone: Vec<u32> = Vec::new();
    for group in stacks(&strokes) {
        gone.extend(group.iter().map(|g| g.0));
        found.push(Writing {
            extent: ruled(&group),
            lines: true,
            count: group.len(),
        });
    }
    let letters: Vec<Letter> = letters
        .into_iter()
        .filter(|l| !gone.contains(&l.label))
        .collect();
    for group in words(&letters) {
        let extent = around(&group);
        gone.extend(group.iter().map(|g| g.label));
        found.push(Writing {
            extent,
            lines: false,
            count: group.len(),
        });
    }
    // A letter or two by themselves may stand in a photo's place.
    for letter in letters.iter().filter(|l| !l.outline) {
        if gone.contains(&letter.label) {
            continue;
        }
        let (part, e) = (&letter.part, Extent::of(&letter.part));
        let alone = !letters.iter().any(|o| {
            o.label != letter.label
                && o.part.area > 20
                && Extent::of(&o.part).grown(22.0).common(&e) > 0.0
        });
        if alone
            && (16..=100).contains(&part.h())
            && (6..=110).contains(&part.w())
            && holes(&parts, letter.label) < 3
        {
            gone.push(letter.label);
            found.push(Writing {
                extent: e,
                lines: false,
                count: 1,
            });
        }
    }
    let gone: std::collections::HashSet<u32> = gone.into_iter().collect();
    for i in 0..mask.data.len() {
        if gone.contains(&parts.labels[i]) {
            mask.data[i] = false;
        }
    }
    found
}

/// Something of a letter's size.
#[derive(Debug, Clone, Copy)]
struct Letter {
    label: u32,
    part: Part,
    /// It may as well be the outline of a shape.
    outline: bool,
}

/// From the middle of the first line to that of the last; strokes have half their thickness beyond their ends.
fn ruled(lines: &[(u32, Part)]) -> Extent {
    let all = |f: fn(&Part) -> f64| lines.iter().map(move |(_, p)| f(p));
    let middle = |p: &Part| (p.y0 + p.y1 + 1) as f64 / 2.0;
    Extent {
        x0: all(|p| p.x0 as f64).fold(f64::INFINITY, f64::min) + 1.5,
        x1: all(|p| p.x1 as f64 + 1.0).fold(0.0, f64::max) - 1.5,
        y0: all(middle).fold(f64::INFINITY, f64::min),
        y1: all(middle).fold(0.0, f64::max),
    }
}

fn around(group: &[Letter]) -> Extent {
    group
        .iter()
        .map(|l| Extent::of(&l.part))
        .reduce(|a, b| a.with(&b))
        .unwrap_or(Extent {
            x0: 0.0,
            y0: 0.0,
            x1: 0.0,
            y1: 0.0,
        })
}

fn of_letter_size(p: &Part) -> bool {
    (5..=170).contains(&p.h()) && (3..=240).contains(&p.w()) && p.area >= 12
}

/// An outline of a rectangle or an ellipse keeps its ink at the rim; so do few letters.
fn is_outline(parts: &Parts, label: u32, p: &Part) -> bool {
    let (w, h) = (p.w() as f64, p.h() as f64);
    if w.min(h) < 40.0 {
        return false;
    }
    let (mut rim, mut ring) = (0, 0);
    for (x, y) in parts.pixels(label) {
        let (dx, dy) = ((x - p.x0).min(p.x1 - x), (y - p.y0).min(p.y1 - y));
        rim += usize::from(dx.min(dy) < 8);
        let (u, v) = (
            (x as f64 + 0.5 - p.x0 as f64) / w * 2.0 - 1.0,
            (y as f64 + 0.5 - p.y0 as f64) / h * 2.0 - 1.0,
        );
        ring += usize::from((u.hypot(v) - 0.95).abs() < 0.12);
    }
    rim * 100 >= p.area * 88 || ring * 100 >= p.area * 92
}

/// How many closed faces a part has.
fn holes(parts: &Parts, label: u32) -> usize {
    let p = parts.parts[label as usize];
    let (w, h) = (p.w() + 2, p.h() + 2);
    let mut bare = Mask {
        w,
        h,
        data: vec![true; w * h],
    };
    for (x, y) in parts.pixels(label) {
        bare.data[(y - p.y0 + 1) * w + x - p.x0 + 1] = false;
    }
    bare.connected_components(false)
        .each()
        .filter(|(_, q)| q.area > 6)
        .count()
        .saturating_sub(1)
}

fn may_be_line(p: &Part, across: usize) -> bool {
    // What reaches the page's edge is the edge of something that runs off it.
    let edge = crate::sheet::RIM + 16;
    p.x0 > edge
        && p.x1 + edge < across
        && p.w() >= 45
        && p.h() <= 24
        && p.w() as f64 >= 3.2 * p.h() as f64
}

/// Groups of things linked to each other.
pub(crate) fn groups<T: Copy>(things: &[T], linked: impl Fn(&T, &T) -> bool) -> Vec<Vec<T>> {
    let mut root: Vec<usize> = (0..things.len()).collect();
    fn find(root: &mut [usize], i: usize) -> usize {
        let mut i = i;
        while root[i] != i {
            root[i] = root[root[i]];
            i = root[i];
        }
        i
    }
    for i in 0..things.len() {
        for j in i + 1..things.len() {
            if linked(&things[i], &things[j]) {
                let (a, b) = (find(&mut root, i), find(&mut root, j));
                root[a.max(b)] = a.min(b);
            }
        }
    }
    let mut out: std::collections::BTreeMap<usize, Vec<T>> = std::collections::BTreeMap::new();
    for (i, thing) in things.iter().enumerate() {
        out.entry(find(&mut root, i)).or_default().push(*thing);
    }
    out.into_values().collect()
}

/// Lines under each other from one left edge, evenly apart.
fn stacks(lines: &[(u32, Part)]) -> Vec<Vec<(u32, Part)>> {
    let linked = |a: &(u32, Part), b: &(u32, Part)| {
        let (a, b) = (&a.1, &b.1);
        let middle = |p: &Part| (p.y0 + p.y1) as f64 / 2.0;
        let apart = (middle(a) - middle(b)).abs();
        let (short, long) = (a.w().min(b.w()) as f64, a.w().max(b.w()) as f64);
        a.x0.abs_diff(b.x0) <= 24 && (10.0..=64.0).contains(&apart) && short > 0.4 * long
    };
    groups(lines, linked)
        .into_iter()
        .filter(|g| g.len() >= 2 && even(g))
        .collect()
}

fn even(group: &[(u32, Part)]) -> bool {
    let mut ys: Vec<f64> = group
        .iter()
        .map(|(_, p)| (p.y0 + p.y1) as f64 / 2.0)
        .collect();
    ys.sort_by(f64::total_cmp);
    let steps: Vec<f64> = ys.windows(2).map(|w| w[1] - w[0]).collect();
    let (least, most) = steps
        .iter()
        .fold((f64::INFINITY, 0.0_f64), |(a, b), &s| (a.min(s), b.max(s)));
    group.len() >= 3 && most <= 1.7 * least.max(1.0) || group.len() == 2 && steps[0] < 40.0
}

/// Letters beside each other on one line.
fn words(letters: &[Letter]) -> Vec<Vec<Letter>> {
    let linked = |a: &Letter, b: &Letter| {
        let (a, b) = (Extent::of(&a.part), Extent::of(&b.part));
        let tall = a.h().max(b.h());
        let beside = (a.x0.max(b.x0) - a.x1.min(b.x1)).max(0.0);
        let level = a.y1.min(b.y1) - a.y0.max(b.y0);
        let same = level >= 0.5 * a.h().min(b.h())
            && a.h().min(b.h()) > 0.3 * tall
            && beside <= 0.85 * tall;
        // The dot of an i.
        let over = a.x1.min(b.x1) - a.x0.max(b.x0) > 0.0
            && -level < 0.6 * tall
            && a.h().min(b.h()) < 0.4 * tall
            && tall > 14.0;
        same || over
    };
    groups(letters, linked)
        .into_iter()
        .filter(|g| g.len() >= 3 && is_text(g))
        .collect()
}

/// Letters stand on one line, and most are about as tall as each other.
fn is_text(group: &[Letter]) -> bool {
    let extent = around(group);
    let tall = group.iter().map(|l| l.part.h()).max().unwrap_or(0) as f64;
    let proper = group
        .iter()
        .filter(|l| l.part.h() as f64 > 0.4 * tall)
        .count();
    // Among letters there are O and H and D, which look like outlines: but not most of them.
    if group.iter().filter(|l| l.outline).count() * 2 > group.len() {
        return false;
    }
    extent.h() <= 1.9 * tall && extent.w() > 1.1 * extent.h() && proper >= 3 && tall >= 9.0
}
