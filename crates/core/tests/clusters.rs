//! Clusters: pieces in their places, shared out, fixed; and what is seen on a whole page.
#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::checks::page::{LookOver, LookedOver};
use metrosk_core::clusters::{
    ClusterChoice, ClusterDecisions, ClusterPiece, Scatter, ScatterWay, Share, Surroundings, Thing,
    fixing, placed, scattered, shared_out,
};
use metrosk_core::fit::PhotoDecisions;
use metrosk_core::geometry::{Size, Span};
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::photos::{Lift, Photos};
use metrosk_core::sketch::ClusterSize;
use metrosk_core::stash::{Colour, Form, Material, Side, Swatch};
use metrosk_core::words::WordsElsewhere;
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::BTreeMap;

const INCH: f64 = Unit::Inch.ticks() as f64;

fn thing(name: &str, (w, h): (i64, i64), form: Form, material: Material) -> Thing {
    Thing {
        item: name.to_owned(),
        name: name.to_owned(),
        size: Size {
            w: Length::inches(w, 8),
            h: Length::inches(h, 8),
        },
        thickness: Length::inches(1, 32),
        material,
        form,
        colour: Colour::named("red"),
    }
}

fn span(l: f64, t: f64, w: f64, h: f64) -> Span {
    Span {
        l: l * INCH,
        t: t * INCH,
        r: (l + w) * INCH,
        b: (t + h) * INCH,
    }
}

fn choice(things: &[&Thing], seed: u64) -> ClusterChoice {
    ClusterChoice {
        size: None,
        seed,
        pieces: things.iter().map(|t| ClusterPiece::of(&t.item)).collect(),
    }
}

fn some_things() -> Vec<Thing> {
    vec![
        thing("doily", (12, 12), Form::Doily, Material::Paper),
        thing("leaf", (8, 4), Form::Leaf, Material::Paper),
        thing("tag", (8, 12), Form::Tag, Material::Card),
        thing("sledge", (10, 6), Form::Sledge, Material::Wood),
        thing("film", (7, 10), Form::Kite, Material::Acetate),
        thing("words", (14, 3), Form::Phrase, Material::Card),
        thing("button", (4, 4), Form::Button, Material::Plastic),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]

    #[test]
    fn nothing_hides_what_must_stay_in_sight_where_there_is_room(
        seed in 0_u64..1_000, x in 3.0..9.0_f64, y in 3.0..9.0_f64, pick in prop::collection::vec(0_usize..7, 1..9),
    ) {
        let all = some_things();
        let things: Vec<&Thing> = pick.iter().map(|n| &all[*n]).collect();
        // A face beside the cluster, so that there is room on its other side.
        let around = Surroundings {
            page: span(0.0, 0.0, 12.0, 12.0),
            in_sight: vec![span(x + 1.0, y - 2.0, 2.0, 4.0)],
            to_hide: Vec::new(),
        };
        let cluster = span(x - 1.25, y - 1.25, 2.5, 2.5);
        let laid = placed(cluster, &choice(&things, seed), &things, &around);
        prop_assert_eq!(laid.len(), things.len());
        for piece in &laid {
            prop_assert!(!piece.hides && !piece.off_page, "{piece:?}");
        }
        prop_assert_eq!(&laid, &placed(cluster, &choice(&things, seed), &things, &around), "one seed, one way");
    }

    #[test]
    fn every_piece_is_shared_out_once(sizes in prop::collection::vec(0_usize..3, 1..5), pick in prop::collection::vec(0_usize..7, 0..30)) {
        let all = some_things();
        let things: Vec<&Thing> = pick.iter().map(|n| &all[*n]).collect();
        let clusters: Vec<Share> = sizes
            .iter()
            .map(|n| Share { size: [ClusterSize::Small, ClusterSize::Medium, ClusterSize::Large][*n], by_focal: false })
            .collect();
        let shared = shared_out(&things, &clusters);
        let mut seen: Vec<usize> = shared.iter().flatten().copied().collect();
        seen.sort_unstable();
        prop_assert_eq!(seen, (0..things.len()).collect::<Vec<_>>());
        prop_assert_eq!(shared_out(&things, &clusters), shared);
    }

    #[test]
    fn what_is_strewn_lies_apart_on_the_page_and_off_faces(seed in 0_u64..500, count in 1_u32..60, way in 0_usize..3) {
        let way = [ScatterWay::FromClusters, ScatterWay::Diagonal, ScatterWay::Triangle][way];
        let canvas = span(0.0, 0.0, 24.0, 12.0);
        let around = Surroundings { page: canvas, in_sight: vec![span(4.0, 4.0, 5.0, 5.0)], to_hide: Vec::new() };
        let scatter = Scatter { item: "dot".to_owned(), count, way, seed };
        let width = 0.2 * INCH;
        let strewn = scattered(&scatter, width, canvas, &[span(2.0, 8.0, 2.0, 2.0), span(18.0, 2.0, 2.0, 2.0)], &around);
        prop_assert!(strewn.len() <= count as usize && strewn.len() * 2 >= count as usize, "{} of {count}", strewn.len());
        for (n, at) in strewn.iter().enumerate() {
            let own = span(at.0 / INCH - 0.1, at.1 / INCH - 0.1, 0.2, 0.2);
            prop_assert!(own.is_in(canvas, 1.0) && !own.overlaps(around.in_sight[0], 1.0));
            for other in &strewn[n + 1..] {
                prop_assert!((at.0 - other.0).hypot(at.1 - other.1) >= width);
            }
        }
    }
}

#[test]
fn the_large_cluster_by_the_main_photo_gets_most_and_the_largest() {
    let all = some_things();
    let things: Vec<&Thing> = all.iter().chain(&all[..4]).collect();
    let of = |size, by_focal| Share { size, by_focal };
    let shared = shared_out(
        &things,
        &[
            of(ClusterSize::Small, false),
            of(ClusterSize::Large, true),
            of(ClusterSize::Medium, false),
        ],
    );
    let counts: Vec<usize> = shared.iter().map(Vec::len).collect();
    assert_eq!(counts, [1, 7, 3], "two and six would be even");
    let largest = |c: usize| {
        let area = |n: &usize| things[*n].size.w.ticks() * things[*n].size.h.ticks();
        shared[c].iter().map(area).max().unwrap()
    };
    assert!(largest(1) >= largest(2) && largest(2) >= largest(0));
    // Doilies and leaves lie under, words on top.
    for cluster in &shared {
        let words = cluster.iter().position(|n| things[*n].form == Form::Phrase);
        assert!(words.is_none_or(|at| at + 1 == cluster.len()));
    }
}

#[test]
fn a_piece_that_she_placed_stays_and_what_should_be_hidden_is() {
    let all = some_things();
    let things: Vec<&Thing> = all.iter().collect();
    let mut held = choice(&things, 4);
    held.pieces[3].at = Some((Length::inches(2, 1), Length::inches(3, 1)));
    held.pieces[3].turn = Some(30.0);
    let around = Surroundings {
        page: span(0.0, 0.0, 12.0, 12.0),
        in_sight: Vec::new(),
        to_hide: vec![span(5.4, 5.4, 0.4, 0.4)],
    };
    let laid = placed(span(4.0, 4.0, 3.0, 3.0), &held, &things, &around);
    assert_eq!(
        (laid[3].middle(), laid[3].turn),
        ((Length::inches(2, 1), Length::inches(3, 1)), 30.0)
    );
    let hides = |b: Span| around.to_hide[0].is_in(b, 1.0);
    assert!(laid.iter().any(|p| hides(p.bounds)));
}

#[test]
fn how_it_is_fixed_goes_by_what_it_is_made_of() {
    let all = some_things();
    let (doily, leaf, sledge, film) = (&all[0], &all[1], &all[3], &all[4]);
    assert_eq!(
        fixing(leaf, Lift::Flat, &[], &[]).with,
        "wet glue at the stem, so that it lifts"
    );
    assert_eq!(
        fixing(sledge, Lift::Flat, &[], &[]).mind.unwrap(),
        "no staple goes through wood"
    );
    assert_eq!(
        fixing(film, Lift::Flat, &[], &[doily]).with,
        "two small staples, one at each end"
    );
    assert_eq!(
        fixing(film, Lift::Flat, &[leaf], &[sledge]).with,
        "glue where “leaf” hides it"
    );
    assert!(
        fixing(film, Lift::Flat, &[], &[sledge])
            .mind
            .unwrap()
            .contains("“sledge”")
    );
    assert_eq!(fixing(doily, Lift::ThinFoam, &[], &[]).with, "thin foam");
}

#[test]
fn sections_are_read_written_and_refused_with_their_path() {
    let section = json!({"clusters": {"k1": {"0": {"size": "large", "seed": 3, "pieces": [
        {"item": "a"}, {"item": "b", "lift": "thin-foam", "at": {"x": 3.5, "y": 8}, "turn": 12}]}}},
        "scatter": {"item": "c", "count": 9, "way": "triangle", "seed": 2}, "off": ["triangle"], "passed": ["near left p1 t1"]});
    let read = ClusterDecisions::from_json(&section, Unit::Inch).unwrap();
    assert_eq!(read.to_json(Unit::Inch), section);
    assert_eq!(read.used(), BTreeMap::from([("a", 1), ("b", 1), ("c", 9)]));
    let many: Vec<Value> = (0..500).map(|_| json!({"item": "a"})).collect();
    for (wrong, path) in [
        (
            json!({"clusters": {"k1": {"0": {"pieces": many}}}}),
            "clusters.k1.0.pieces",
        ),
        (
            json!({"clusters": {"k1": {"first": {}}}}),
            "clusters.k1.first",
        ),
        (
            json!({"clusters": {"k1": {"0": {"size": "huge"}}}}),
            "clusters.k1.0.size",
        ),
        (
            json!({"clusters": {"k1": {"0": {"pieces": [{"lift": "flat"}]}}}}),
            "clusters.k1.0.pieces[0].item",
        ),
        (
            json!({"scatter": {"item": "c", "count": 0}}),
            "scatter.count",
        ),
    ] {
        let error = ClusterDecisions::from_json(&wrong, Unit::Inch).expect_err(path);
        assert!(
            error.findings.iter().any(|f| f.path == path),
            "{path}: {error}"
        );
    }
}

fn block(id: &str, kind: &str, [x, y, w, h]: [f64; 4]) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": if x >= 12.0 { 1 } else { 0 }, "box": {"x": x, "y": y, "w": w, "h": h}})
}

/// A spread with a photo, a title and three clusters, the last of which lies where it is asked for.
fn spread(last: [f64; 4]) -> Layout {
    let blocks = [
        block("q1", "paper", [1.0, 7.0, 4.0, 4.0]),
        block("p1", "photo", [2.0, 2.0, 6.0, 4.0]),
        block("p2", "photo", [14.0, 2.0, 6.0, 4.0]),
        block("t1", "title", [14.0, 7.0, 6.0, 1.0]),
        block("k1", "cluster", [1.0, 5.0, 2.5, 2.5]),
        block("k2", "cluster", [12.5, 5.0, 2.5, 2.5]),
        block("k3", "cluster", last),
    ];
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 2}, "blocks": blocks});
    Layout::from_json(&layout).unwrap()
}

fn coloured(name: &str, busy: f64) -> Side {
    Side {
        colours: vec![Swatch {
            colour: Colour::named(name).unwrap(),
            share: 1.0,
        }],
        busy,
        ..Side::default()
    }
}

fn look(
    layout: &Layout,
    clusters: &ClusterDecisions,
    change: impl Fn(&mut LookOver<'_>),
) -> LookedOver {
    let photos = PhotoDecisions {
        photos: Photos::AsDrawn,
        whole: false,
        aside: Vec::new(),
        mats: Vec::new(),
        lift: Vec::new(),
        room: Length::inches(1, 8),
    };
    let all = some_things();
    let mut page = LookOver {
        unit: Unit::Inch,
        layout,
        photos: &photos,
        papers: BTreeMap::new(),
        grounds: [None, None],
        photo_colours: BTreeMap::new(),
        title: None,
        words_elsewhere: WordsElsewhere::default(),
        clusters,
        things: all.iter().map(|t| (t.item.clone(), t.clone())).collect(),
        free: all.iter().map(|t| (t.item.clone(), 3)).collect(),
    };
    change(&mut page);
    page.looked_over()
}

fn keys(seen: &LookedOver) -> Vec<&str> {
    seen.findings.iter().map(|f| f.what).collect()
}

#[test]
fn clusters_on_one_line_are_no_triangle() {
    let none = ClusterDecisions::default();
    let flat = look(&spread([20.0, 5.0, 2.5, 2.5]), &none, |_| {});
    assert!(keys(&flat).contains(&"triangle"), "{:?}", flat.findings);
    let wide = look(&spread([16.0, 0.25, 2.5, 2.5]), &none, |_| {});
    assert!(wide.fine.contains(&"triangle"));
    assert!(wide.triangle.unwrap().smallest > 15.0);
    let off = ClusterDecisions {
        off: ["triangle".to_owned()].into(),
        ..ClusterDecisions::default()
    };
    let quiet = look(&spread([20.0, 5.0, 2.5, 2.5]), &off, |_| {});
    assert!(!keys(&quiet).contains(&"triangle") && !quiet.fine.contains(&"triangle"));
}

#[test]
fn a_colour_that_stands_alone_is_echoed_out_of_the_stash() {
    let layout = spread([16.0, 9.0, 2.5, 2.5]);
    let paper = |l: &mut LookOver<'_>| {
        l.papers.insert(("q1".to_owned(), 0), coloured("red", 0.1));
    };
    let seen = look(&layout, &ClusterDecisions::default(), paper);
    let alone = seen.findings.iter().find(|f| f.what == "alone").unwrap();
    assert_eq!(alone.text, "The red in q1 stands alone.");
    let cure = &alone.cures[0];
    assert!(
        cure.text.contains("k2") || cure.text.contains("k3"),
        "on the other page: {}",
        cure.text
    );
    // It was tried: with it the red is no longer alone.
    let mut section = ClusterDecisions::default().to_json(Unit::Inch);
    let patch = cure.patch["clusters"].clone();
    section["clusters"] = patch;
    let cured = ClusterDecisions::from_json(&section, Unit::Inch).unwrap();
    assert!(!keys(&look(&layout, &cured, paper)).contains(&"alone"));
}

#[test]
fn what_sinks_in_what_fights_and_what_is_too_thick_is_said() {
    let layout = spread([16.0, 9.0, 2.5, 2.5]);
    let seen = look(&layout, &ClusterDecisions::default(), |l| {
        l.title = Colour::named("navy");
        l.grounds = [Some(coloured("navy", 0.8)), Some(coloured("navy", 0.1))];
        l.papers.insert(("q1".to_owned(), 0), coloured("teal", 0.9));
    });
    assert!(
        keys(&seen).contains(&"contrast") && keys(&seen).contains(&"busy"),
        "{:?}",
        seen.findings
    );
    let mut high = ClusterDecisions::default();
    let mut piece = ClusterPiece::of("button");
    piece.lift = Lift::ThickFoam;
    let cluster = ClusterChoice {
        pieces: vec![piece],
        ..ClusterChoice::default()
    };
    high.clusters.insert(("k1".to_owned(), 0), cluster);
    let thick = look(&layout, &high, |_| {});
    let found = thick
        .findings
        .iter()
        .find(|f| f.what == "thickness")
        .unwrap();
    assert_eq!(found.cures[0].text, "“button” without foam");
}

#[test]
fn what_she_lays_over_the_title_is_said_and_laid_anew() {
    let layout = spread([16.0, 9.0, 2.5, 2.5]);
    let mut over = ClusterDecisions::default();
    let mut piece = ClusterPiece::of("tag");
    piece.at = Some((Length::inches(15, 1), Length::inches(15, 2)));
    let cluster = ClusterChoice {
        pieces: vec![piece],
        ..ClusterChoice::default()
    };
    over.clusters.insert(("k2".to_owned(), 0), cluster);
    let seen = look(&layout, &over, |_| {});
    let found = seen.findings.iter().find(|f| f.what == "in-sight").unwrap();
    assert_eq!(found.text, "“tag” in k2 hides part of t1.");
    assert_eq!(found.cures[0].text, "Lay it where it hides nothing");
}
