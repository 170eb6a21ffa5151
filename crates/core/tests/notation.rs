//! A sketch printed by number and read again is the same sketch.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::geometry::{Edge, Rect, Size};
use metrosk_core::length::{Length, Unit};
use metrosk_core::notation::{print, read, read_over};
use metrosk_core::plan::Defaults;
use metrosk_core::sketch::{
    Block, Canvas, ClusterSize, Grid, Kind, Ring, Shape, Sketch, TriangleCorner, UnitShape,
};
use proptest::prelude::*;
use serde_json::Map;

/// Lengths on a ruler of either unit, and some that are on none.
fn length(least: i64) -> impl Strategy<Value = Length> {
    let sixty_fourths = (least..2_000_i64).prop_map(|n| Length::from_ticks(n * 3_175));
    let tenths = (least..5_000_i64).prop_map(|n| Length::from_ticks(n * 800));
    let any = (least..4_000_000_i64).prop_map(Length::from_ticks);
    prop_oneof![sixty_fourths, tenths, any]
}

fn shape() -> impl Strategy<Value = Shape> {
    let point = (0.0..=1.0_f64, 0.0..=1.0_f64).prop_map(|(x, y)| [x, y]);
    let corner = prop::sample::select(TriangleCorner::NAMES.to_vec())
        .prop_map(|n| TriangleCorner::from_name(n).unwrap());
    prop_oneof![
        4 => Just(Shape::Rect),
        1 => Just(Shape::Ellipse),
        1 => corner.prop_map(Shape::Triangle),
        1 => prop::collection::vec(point, 3..6).prop_map(Shape::Polygon),
    ]
}

fn units() -> impl Strategy<Value = UnitShape> {
    prop_oneof![Just(UnitShape::Square), Just(UnitShape::Circle)]
}

fn block() -> impl Strategy<Value = Block> {
    let place = (length(-500), length(-500), length(1), length(1)).prop_map(|(x, y, w, h)| Rect {
        x,
        y,
        w,
        h,
    });
    let grid = (1..40_u32, 1..40_u32, length(0), any::<bool>(), units());
    let grid = grid.prop_map(|(cols, rows, gap, s, unit_shape)| Grid {
        cols,
        rows,
        gap,
        stagger: if s { 0.5 } else { 0.0 },
        unit_shape,
    });
    let ring = (1..40_u32, length(1), units()).prop_map(|(count, unit, unit_shape)| Ring {
        count,
        unit,
        unit_shape,
    });
    let turn = prop_oneof![3 => Just(0.0), 1 => -180.0..180.0_f64, 1 => (-90..90_i32).prop_map(|t| f64::from(t) / 2.0)];
    let bleed = prop::sample::subsequence(Edge::ALL.to_vec(), 0..=4);
    let size = prop::option::of(
        prop::sample::select(ClusterSize::NAMES.to_vec())
            .prop_map(|n| ClusterSize::from_name(n).unwrap()),
    );
    let kind = prop::sample::select(Kind::ALL.to_vec());
    (kind, place, turn, shape(), bleed, size, grid, ring).prop_map(
        |(kind, rect, turn, shape, mut bleed, size, grid, ring)| {
            bleed.sort_unstable();
            Block {
                id: String::new(),
                kind,
                rect,
                turn,
                shape,
                bleed,
                under: None,
                host: None,
                size: size.filter(|_| kind == Kind::Cluster),
                grid: (kind == Kind::Grid).then_some(grid),
                ring: (kind == Kind::Ring).then_some(ring),
                sure: None,
                other: Map::new(),
            }
        },
    )
}

prop_compose! {
    fn sketch()(
        blocks in prop::collection::vec((block(), "[a-zA-Z][a-zA-Z0-9_-]{0,6}|\\PC{1,8}|at|full|#x|a\"b\\\\", any::<prop::sample::Index>(), any::<bool>()), 1..8),
        name in "\\PC{0,12}", unit in prop_oneof![Just(Unit::Inch), Just(Unit::Millimetre)], w in length(1), h in length(1), pages in 1..=2_u8,
    ) -> Sketch {
        let ids: Vec<String> = blocks.iter().enumerate().map(|(n, b)| format!("{}{n}", b.1)).collect();
        let count = blocks.len();
        let blocks = blocks.into_iter().enumerate().map(|(n, (mut block, _, other, ties))| {
            block.id.clone_from(&ids[n]);
            let other = other.index(count);
            if ties && other != n {
                if block.kind == Kind::Mat { block.under = Some(ids[other].clone()) } else { block.host = Some(ids[other].clone()) }
            }
            block
        }).collect();
        Sketch { unit, name, canvas: Canvas { page: Size { w, h }, pages }, blocks, other: Map::new() }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(std::env::var("METROSK_CASES").ok().and_then(|n| n.parse().ok()).unwrap_or(300)))]

    #[test]
    fn what_is_printed_is_read_as_the_same(sketch in sketch()) {
        let text = print(&sketch);
        match read(&text) {
            Ok(again) => prop_assert_eq!(again, sketch, "{}", text),
            Err(errors) => prop_assert!(false, "{:?} in\n{}", errors, text),
        }
    }

    /// Whatever is typed, the answer is a sketch or errors that stand in the text.
    #[test]
    fn anything_typed_is_answered(text in "(photo|mat|strip|grid|at|x|of|[0-9]{1,12}|[ ,./\"#\n-]|\\PC){0,60}") {
        if let Err(errors) = read(&text) {
            prop_assert!(!errors.is_empty());
            for e in errors {
                let line = text.split('\n').nth(e.line - 1).unwrap_or_default();
                prop_assert!(e.column >= 1 && e.column - 1 + e.length <= line.chars().count(), "{:?} in {:?}", e, text);
            }
        }
    }
}

#[test]
fn the_demos_sketches_are_printed_and_read() {
    let sketches = metrosk_demo::sketches(metrosk_demo::SEED);
    assert!(sketches.len() >= 8);
    for sketch in sketches {
        let again = read_over(&sketch, &Defaults::default(), &print(&sketch)).unwrap();
        assert_eq!(again.to_json(), sketch.to_json(), "{}", sketch.name);
    }
}
