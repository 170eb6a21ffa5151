//! The search for a plan of one paper: pieces are cut out one after the other in an order that is improved, step by step, from a seed.
//!
//! Each order is decoded by best fit into the parts that are left (guillotine placement after Jylänki, "A thousand ways to pack the bin",
//! 2010). A step changes the order a little, and stays where it is no worse; emptying the sheet that is used least is the pull towards fewer
//! sheets. So many steps, never a clock: the same job gives the same plan, unless the search is stopped.

use super::job::{CutJob, Preference};
use super::opened::{First, Opened, can_take};
use crate::Cancel;
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};

/// Steps by how many pieces there are: their product with the square of that.
const WORK: usize = 600_000_000;
const STEPS: (usize, usize) = (500, 40_000);
/// Once no plan can have fewer sheets, so many steps more look for larger rests and fewer settings.
const POLISH: usize = 4_000;
/// After so large a share of the steps without a better plan the search goes on from the best one, shaken up.
const PATIENCE: usize = 2;
/// So many other ways to clear a sheet are tried for a piece that finds no room.
const OTHER_WAYS: u64 = 64;
const SEED: u64 = 20_261_128;

/// The stock of one paper, each with the ways in which what spoils it can be cut away.
struct Shop<'a> {
    job: &'a CutJob,
    /// Scraps first, the smallest first, each as often as there are.
    scraps: Vec<usize>,
    /// Of each stock its sheets as they are after clearing, all different.
    cleared: Vec<Vec<Opened>>,
    /// Of each stock and each piece the clearings that have room for it.
    room: Vec<Vec<Vec<usize>>>,
}

impl<'a> Shop<'a> {
    fn new(job: &'a CutJob, stock: &[usize]) -> Shop<'a> {
        let mut cleared = vec![Vec::new(); job.stock.len()];
        let mut room = vec![vec![Vec::new(); job.pieces.len()]; job.stock.len()];
        for s in stock.iter().copied() {
            let ways = if job.stock[s].spoiled.is_empty() {
                1
            } else {
                OTHER_WAYS
            };
            let all: &mut Vec<Opened> = &mut cleared[s];
            for way in 0..ways {
                let sheet = Opened::new(job, s, 1, way);
                if !all.iter().any(|other| other.cuts == sheet.cuts) {
                    all.push(sheet);
                }
            }
            for (p, piece) in job.pieces.iter().enumerate() {
                if piece.paper != job.stock[s].paper {
                    continue;
                }
                let has_room = |n: &usize| {
                    let sheet = std::slice::from_ref(&all[*n]);
                    best_place(job, sheet, p, Rule::ShortRest).is_some()
                };
                room[s][p] = (0..all.len()).filter(has_room).collect();
            }
        }
        let mut scraps: Vec<usize> = stock
            .iter()
            .filter(|s| job.stock[**s].is_scrap)
            .flat_map(|s| std::iter::repeat_n(*s, job.stock[*s].quantity as usize))
            .collect();
        scraps.sort_by_key(|s| area_of(job, *s));
        Shop {
            job,
            scraps,
            cleared,
            room,
        }
    }

    /// Opens a sheet for a piece, cleared as wished where that leaves room for it.
    fn open(&self, stock: usize, copy: u32, piece: usize, way: u64) -> Option<Opened> {
        let room = &self.room[stock][piece];
        let all = &self.cleared[stock];
        let wished = (way as usize) % all.len().max(1);
        let n = if room.contains(&wished) {
            wished
        } else {
            *room.first()?
        };
        let mut sheet = all[n].clone();
        sheet.copy = copy;
        Some(sheet)
    }
}

/// A sheet's area in square ticks.
fn area_of(job: &CutJob, stock: usize) -> i128 {
    i128::from(job.stock[stock].w) * i128::from(job.stock[stock].h)
}

/// What is cut, in order, and how.
#[derive(Clone)]
struct Order {
    /// Pieces, by their places in the job.
    pieces: Vec<usize>,
    /// Which cut comes first, of each.
    firsts: Vec<First>,
    /// How parts are compared.
    rule: Rule,
    /// How spoiled areas are cut away.
    way: u64,
    /// In which order whole sheets are opened.
    sheets: Vec<usize>,
}

#[derive(Clone, Copy)]
enum Rule {
    ShortRest,
    LongRest,
    LeastArea,
}

/// How good a plan is, the less the better: what is missing, whole sheets, their area, piece area out of scraps, scraps, then the largest rest and
/// settings in the order in which they count.
type Worth = (usize, usize, i128, i128, usize, i128, i128);

/// The same with a pull towards sheets that are full or empty, before the last two.
type Pull = (usize, usize, i128, i128, usize, i128, i128, i128);

/// A plan of one paper.
#[derive(Clone, Default)]
pub(super) struct Found {
    /// Sheets, in the order in which they are opened.
    pub(super) sheets: Vec<Opened>,
    /// Pieces that have no place.
    pub(super) missing: Vec<usize>,
    /// The search was stopped before it ended.
    pub(super) is_stopped: bool,
}

/// The best plan found for the pieces and stock of one paper, by their places in the job.
pub(super) fn plan_for(job: &CutJob, pieces: &[usize], stock: &[usize], cancel: &Cancel) -> Found {
    let shop = Shop::new(job, stock);
    let mut best: Option<Tried> = None;
    for order in beginnings(job, pieces, stock) {
        let tried = Tried::of(&shop, order);
        if best.as_ref().is_none_or(|b| tried.worth < b.worth) {
            best = Some(tried);
        }
    }
    match best {
        Some(best) if !pieces.is_empty() => {
            improved(&shop, best, least_sheets(job, pieces, stock), cancel)
        }
        _ => Found::default(),
    }
}

/// An order, and what it comes to.
struct Tried {
    order: Order,
    found: Found,
    worth: Worth,
    pull: Pull,
}

impl Tried {
    fn of(shop: &Shop<'_>, order: Order) -> Tried {
        let found = decoded(shop, &order);
        let worth = worth_of(shop.job, &found);
        Tried {
            pull: pulled(worth, &found),
            order,
            found,
            worth,
        }
    }
}

/// Changes the order step by step, from one that is good already.
fn improved(shop: &Shop<'_>, begin: Tried, bound: usize, cancel: &Cancel) -> Found {
    let mut random = StdRng::seed_from_u64(SEED);
    let count = begin.order.pieces.len();
    let mut steps = (WORK / count.pow(2)).clamp(STEPS.0, STEPS.1);
    let patience = steps / PATIENCE;
    let (mut best_order, mut least, mut kept) =
        (begin.order.clone(), begin.worth, begin.found.clone());
    let (mut now, mut stale, mut step) = (begin, 0, 0);
    let cannot_be_fewer = |worth: &Worth| worth.0 == 0 && worth.1 <= bound;
    if cannot_be_fewer(&least) {
        steps = steps.min(POLISH);
    }
    while step < steps {
        if step % 64 == 0 && cancel.is_cancelled() {
            kept.is_stopped = true;
            break;
        }
        step += 1;
        stale += 1;
        let on_last = last_of(&now.found);
        let next = Tried::of(shop, changed(&now.order, &on_last, &mut random));
        if next.worth < least {
            if cannot_be_fewer(&next.worth) && !cannot_be_fewer(&least) {
                steps = steps.min(step + POLISH);
            }
            (least, kept, best_order, stale) =
                (next.worth, next.found.clone(), next.order.clone(), 0);
        }
        if next.pull <= now.pull {
            now = next;
        } else if stale > patience {
            let mut order = best_order.clone();
            for _ in 0..count.div_ceil(4) {
                order = changed(&order, &on_last, &mut random);
            }
            (now, stale) = (Tried::of(shop, order), 0);
        }
    }
    kept
}

/// No plan has fewer whole sheets: what scraps can't take, by area, over the largest sheets.
fn least_sheets(job: &CutJob, pieces: &[usize], stock: &[usize]) -> usize {
    let wanted: i128 = pieces
        .iter()
        .map(|p| i128::from(job.pieces[*p].w) * i128::from(job.pieces[*p].h))
        .sum();
    let clean = |s: usize| {
        // Spoiled areas may overlap: only the largest is sure to count.
        let spoiled = job.stock[s].spoiled.iter().map(|a| a.area()).max();
        area_of(job, s) - spoiled.unwrap_or(0)
    };
    let of = |is_scrap: bool| {
        stock
            .iter()
            .filter(move |s| job.stock[**s].is_scrap == is_scrap)
            .flat_map(|s| std::iter::repeat_n(clean(*s), job.stock[*s].quantity as usize))
    };
    let mut left = wanted - of(true).sum::<i128>();
    let mut whole: Vec<i128> = of(false).collect();
    whole.sort_unstable_by_key(|a| std::cmp::Reverse(*a));
    let mut count = 0;
    for area in whole {
        if left <= 0 {
            break;
        }
        left -= area;
        count += 1;
    }
    count
}

/// Orders to begin with: by each measure of size, under each rule.
fn beginnings(job: &CutJob, pieces: &[usize], stock: &[usize]) -> Vec<Order> {
    let keys: [fn(i64, i64) -> i128; 5] = [
        |w, h| i128::from(w) * i128::from(h),
        |w, h| i128::from(w.max(h)) * 4_000_000_000 + i128::from(w.min(h)),
        |w, h| i128::from(w) * 4_000_000_000 + i128::from(h),
        |w, h| i128::from(h) * 4_000_000_000 + i128::from(w),
        |w, h| i128::from(w + h),
    ];
    let mut large_first: Vec<usize> = whole_of(job, stock);
    large_first.sort_by_key(|s| std::cmp::Reverse(area_of(job, *s)));
    let small_first: Vec<usize> = large_first.iter().rev().copied().collect();
    let mut all = Vec::new();
    for key in keys {
        let mut sorted = pieces.to_vec();
        sorted.sort_by_key(|p| std::cmp::Reverse(key(job.pieces[*p].w, job.pieces[*p].h)));
        for rule in [Rule::ShortRest, Rule::LongRest, Rule::LeastArea] {
            for first in [First::Better, First::Across, First::Down] {
                for sheets in [&large_first, &small_first] {
                    all.push(Order {
                        firsts: vec![first; sorted.len()],
                        pieces: sorted.clone(),
                        rule,
                        way: 0,
                        sheets: sheets.clone(),
                    });
                }
            }
        }
    }
    all
}

/// Each whole sheet, as often as there are.
fn whole_of(job: &CutJob, stock: &[usize]) -> Vec<usize> {
    let whole = stock.iter().filter(|s| !job.stock[**s].is_scrap);
    whole
        .flat_map(|s| std::iter::repeat_n(*s, job.stock[*s].quantity as usize))
        .collect()
}

/// Scraps are opened before whole sheets, the smallest that takes a piece first.
fn decoded(shop: &Shop<'_>, order: &Order) -> Found {
    let job = shop.job;
    let mut closed: Vec<usize> = shop.scraps.iter().chain(&order.sheets).copied().collect();
    let mut copies = vec![0_u32; job.stock.len()];
    let mut found = Found::default();
    for (n, piece) in order.pieces.iter().enumerate() {
        let first = order.firsts[n];
        if let Some((sheet, part, turned)) = best_place(job, &found.sheets, *piece, order.rule) {
            found.sheets[sheet].take(job, part, *piece, turned, first);
            continue;
        }
        let opened = closed.iter().enumerate().find_map(|(at, stock)| {
            let sheet = shop.open(*stock, copies[*stock] + 1, *piece, order.way)?;
            let (_, part, turned) =
                best_place(job, std::slice::from_ref(&sheet), *piece, order.rule)?;
            Some((at, sheet, part, turned))
        });
        let Some((at, mut sheet, part, turned)) = opened else {
            found.missing.push(*piece);
            continue;
        };
        closed.remove(at);
        copies[sheet.stock] += 1;
        sheet.take(job, part, *piece, turned, first);
        found.sheets.push(sheet);
    }
    found
}

/// What a place costs: whether it is on a whole sheet, then by the rule.
type Cost = (bool, i128, i128);
/// A sheet, a part of it, and whether the piece lies across.
type Spot = (usize, usize, bool);

/// Where a piece fits best: sheet, part, and whether it lies across. Of alike places the first.
fn best_place(job: &CutJob, sheets: &[Opened], piece: usize, rule: Rule) -> Option<Spot> {
    let p = &job.pieces[piece];
    let ways: &[(i64, i64, bool)] = &[(p.w, p.h, false), (p.h, p.w, true)];
    let ways = if p.may_turn && p.w != p.h {
        ways
    } else {
        &ways[..1]
    };
    let mut best: Option<(Cost, Spot)> = None;
    for (s, sheet) in sheets.iter().enumerate() {
        let only_from = p.only_from.as_ref();
        if only_from.is_some_and(|only| *only != job.stock[sheet.stock].id) {
            continue;
        }
        // What is out of a scrap is not out of a whole sheet.
        let is_whole = !job.stock[sheet.stock].is_scrap;
        for (n, part) in sheet.free.iter().enumerate() {
            for (w, h, turned) in ways {
                if !can_take(job, part.area, (*w, *h)) {
                    continue;
                }
                let (beside, below) = (i128::from(part.area.w - w), i128::from(part.area.h - h));
                let (short, long) = (beside.min(below), beside.max(below));
                let cost = match rule {
                    Rule::ShortRest => (short, long),
                    Rule::LongRest => (long, short),
                    Rule::LeastArea => (part.area.area(), short),
                };
                let cost = (is_whole, cost.0, cost.1);
                if best.is_none_or(|(least, _)| cost < least) {
                    best = Some((cost, (s, n, *turned)));
                }
            }
        }
    }
    best.map(|(_, place)| place)
}

fn worth_of(job: &CutJob, found: &Found) -> Worth {
    let (mut whole, mut whole_area, mut of_scraps, mut scraps, mut largest) = (0, 0, 0, 0, 0);
    let mut settings: Vec<i64> = Vec::new();
    for sheet in &found.sheets {
        let stock = &job.stock[sheet.stock];
        if stock.is_scrap {
            scraps += 1;
            of_scraps += sheet.used();
        } else {
            whole += 1;
            whole_area += i128::from(stock.w) * i128::from(stock.h);
        }
        largest = largest.max(sheet.largest_left());
        settings.extend(sheet.cuts.iter().map(|c| c.at));
    }
    settings.sort_unstable();
    settings.dedup();
    let (rest, settings) = (-largest, settings.len() as i128);
    let (first, second) = match job.prefers {
        Preference::LargestRest => (rest, settings),
        Preference::FewSettings => (settings, rest),
    };
    (
        found.missing.len(),
        whole,
        whole_area,
        -of_scraps,
        scraps,
        first,
        second,
    )
}

fn pulled(worth: Worth, found: &Found) -> Pull {
    let unit = 203_200_i128 * 203_200 / 64;
    let squares: i128 = found.sheets.iter().map(|s| (s.used() / unit).pow(2)).sum();
    let (missing, whole, area, of_scraps, scraps, first, second) = worth;
    (
        missing, whole, area, of_scraps, scraps, -squares, first, second,
    )
}

/// The pieces on the sheet that is used least, and those that have no place.
fn last_of(found: &Found) -> Vec<usize> {
    let last = found.sheets.iter().min_by_key(|s| s.used());
    let on_it = last
        .into_iter()
        .flat_map(|s| s.pieces.iter().map(|p| p.piece));
    on_it.chain(found.missing.iter().copied()).collect()
}

/// An order that differs a little.
fn changed(order: &Order, on_last: &[usize], random: &mut StdRng) -> Order {
    let mut next = order.clone();
    let count = next.pieces.len();
    for _ in 0..random.random_range(1..=2) {
        let (a, b) = (random.random_range(0..count), random.random_range(0..count));
        match random.random_range(0..10) {
            0..=2 => next.pieces.swap(a, b),
            3..=4 => {
                let piece = next.pieces.remove(a);
                let first = next.firsts.remove(a);
                next.pieces.insert(b, piece);
                next.firsts.insert(b, first);
            }
            5 => next.pieces[a.min(b)..=a.max(b)].reverse(),
            6..=7 => {
                next.firsts[a] =
                    [First::Better, First::Across, First::Down][random.random_range(0..3)];
            }
            8 => {
                // What lies on the worst sheet, or nowhere, goes further forward.
                let Some(piece) = on_last.get(a % on_last.len().max(1)) else {
                    continue;
                };
                if let Some(at) = next.pieces.iter().position(|p| p == piece) {
                    let to = random.random_range(0..=at);
                    let piece = next.pieces.remove(at);
                    next.pieces.insert(to, piece);
                }
            }
            _ => match random.random_range(0..3) {
                0 => {
                    next.rule = [Rule::ShortRest, Rule::LongRest, Rule::LeastArea]
                        [random.random_range(0..3)]
                }
                1 => next.way = random.random(),
                _ if next.sheets.len() > 1 => {
                    let (a, b) = (
                        random.random_range(0..next.sheets.len()),
                        random.random_range(0..next.sheets.len()),
                    );
                    next.sheets.swap(a, b);
                }
                _ => {}
            },
        }
    }
    next
}
