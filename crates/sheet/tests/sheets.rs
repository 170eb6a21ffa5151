//! Sheets and drawings of the demo's pages: everything is on them, at its real size, and the PDF has its text.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::plan::{self, Defaults};
use metrosk_core::sketch::Sketch;
use metrosk_core::words::Shape;
use metrosk_sheet::{
    Paper, Pictures, Subject, WritingLines, measurement_pages, measurement_pdf, numbered,
    true_scale, writing_pdf,
};

fn on_subjects(mut look: impl FnMut(&Subject<'_>)) {
    let sketches = metrosk_demo::sketches(metrosk_demo::SEED);
    assert!(sketches.len() >= 8);
    for sketch in &sketches {
        let mut plan = plan::start(sketch, &Defaults::default());
        plan["fit"]["target"]["pages"] = 2.into();
        look_at(sketch, &plan, &mut look);
    }
}

fn look_at(sketch: &Sketch, plan: &serde_json::Value, look: &mut impl FnMut(&Subject<'_>)) {
    let made = plan::Plan::from_json(plan).unwrap().proposal().unwrap();
    look(&Subject {
        name: &sketch.name,
        sketch,
        layout: &made.layout,
        way: made.approach.name(),
        pictures: &Pictures::new(),
    });
}

#[test]
fn the_drawing_has_one_element_a_block_at_true_size() {
    on_subjects(|subject| {
        let svg = true_scale(subject);
        let tree = usvg::Tree::from_str(&svg, &usvg::Options::default()).unwrap();
        let unit = subject.layout.unit.ticks() as f64
            / if subject.layout.unit.name() == "in" {
                96.0
            } else {
                96.0 / 25.4
            };
        let wide = subject.layout.canvas.width().ticks() as f64 / unit;
        assert!(
            (f64::from(tree.size().width()) - wide).abs() < 0.1,
            "{} is {wide} wide, drawn {}",
            subject.name,
            tree.size().width()
        );
        for block in &subject.layout.blocks {
            assert_eq!(
                svg.matches(&format!("id=\"block-{}\"", block.block.id))
                    .count(),
                1,
                "{} {}",
                subject.name,
                block.block.id
            );
        }
        assert!(!svg.contains("NaN") && svg.contains("edge of the left page"));
    });
}

#[test]
fn every_block_stands_in_the_table_and_nothing_runs_off_the_paper() {
    on_subjects(|subject| {
        for paper in [Paper::Letter, Paper::A4] {
            let pages = measurement_pages(subject, paper);
            let rows: usize = pages
                .iter()
                .map(|p| p.matches("stroke=\"#c3ccd2\"").count())
                .sum();
            assert_eq!(rows, subject.layout.blocks.len(), "{}", subject.name);
            for page in &pages {
                let lowest = page
                    .match_indices(" y=\"")
                    .filter_map(|(at, _)| page[at + 4..].split('"').next()?.parse::<f64>().ok())
                    .fold(0.0, f64::max);
                assert!(lowest <= paper.points().1 - 20.0, "{lowest}");
            }
            assert!(
                measurement_pdf(subject, paper)
                    .unwrap()
                    .starts_with(b"%PDF-")
            );
        }
    });
}

#[test]
fn a_crowded_page_takes_several_sheets() {
    let blocks: Vec<serde_json::Value> = (0..60)
        .map(|n| serde_json::json!({"id": format!("a{n}"), "kind": "accent", "box": {"x": 0.3 + f64::from(n % 10), "y": 0.3 + f64::from(n / 10) * 1.5, "w": 0.7, "h": 0.7}}))
        .collect();
    let document = serde_json::json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Crowded <&>", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    let sketch = Sketch::from_json(&document).unwrap();
    look_at(
        &sketch,
        &plan::start(&sketch, &Defaults::default()),
        &mut |subject| {
            let pages = measurement_pages(subject, Paper::Letter);
            assert!(pages.len() >= 2, "{}", pages.len());
            assert!(pages[1].contains("sheet 2 of") && pages[0].contains("Crowded &lt;&amp;&gt;"));
            assert_eq!(numbered(subject).len(), 60);
            assert!(measurement_pdf(subject, Paper::Letter).is_ok());
        },
    );
}

#[test]
fn writing_is_put_on_paper_at_true_scale() {
    let inches = |n: i64, of: i64| metrosk_core::length::Length::inches(n, of);
    let lines = [
        ("Low water & a low sun".to_owned(), inches(3, 1)),
        ("at the slipway".to_owned(), inches(2, 1)),
    ];
    let space = metrosk_core::geometry::Size {
        w: inches(6, 1),
        h: inches(3, 2),
    };
    let slots = Shape::Lines.slots(space, inches(1, 4));
    let writing = WritingLines {
        space,
        pitch: inches(1, 4),
        slots: &slots,
        lines: &lines,
        typeface: None,
        unit: metrosk_core::length::Unit::Inch,
    };
    // Six lines of a quarter inch, 18 points apart, 6 in = 432 points long.
    let (guide, _) = writing.guide();
    assert_eq!(guide.matches("class=\"guide\"").count(), 6);
    assert!(
        guide.contains("d=\"M36 90h432\"") && guide.contains("d=\"M36 108h432\""),
        "{guide}"
    );
    let (strips, size) = writing.strips();
    assert_eq!(strips.matches("height=\"18\"").count(), 2);
    assert!(strips.contains("Low water &amp; a low sun"), "{strips}");
    assert_eq!(size, (612.0, 792.0));
    assert!(writing_pdf(&writing).unwrap().starts_with(b"%PDF"));
    // Round the edge the second line runs down at the right, a line's height within the edge at 468 points: from 72 + 18 points down.
    let edge = Shape::Edge.slots(space, inches(1, 4));
    let round = WritingLines {
        slots: &edge,
        ..writing
    };
    let (guide, _) = round.guide();
    assert!(guide.contains("d=\"M450 90v90\""), "{guide}");
    // Printed type is set in its own size, three quarters of the pitch, and is stretched to nothing.
    let typed = WritingLines {
        typeface: Some(metrosk_core::typefaces::Typeface::Bold),
        ..writing
    };
    let (strips, _) = typed.strips();
    assert!(
        strips.contains("font-family=\"Public Sans\" font-weight=\"700\" font-size=\"13.5\""),
        "{strips}"
    );
    assert!(!strips.contains("textLength"), "{strips}");
    assert!(writing_pdf(&typed).unwrap().starts_with(b"%PDF"));
}
