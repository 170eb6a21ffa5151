//! Pictures drawn from known sketches are read back: the blocks that were drawn are found where they were drawn.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use image::RgbImage;
use metrosk_core::length::Length;
use metrosk_core::sketch::{Block, Kind, Shape, Sketch};
use metrosk_demo::{SEED, Style, picture};
use metrosk_drawn::asked;
use metrosk_vision::{
    ReadRequest, Stage, Unreadable, decode, find_page, jpeg, read, straightened, swatches,
};

fn reading(pixels: &RgbImage, asked: &ReadRequest) -> Sketch {
    let read = read(pixels, asked, &|_| true).unwrap();
    Sketch::from_json(&read.sketch).unwrap()
}

/// Shared area over joint area of two upright boxes.
fn overlap(a: &Block, b: &Block) -> f64 {
    let (s, t) = (a.extent(), b.extent());
    let common = (s.r.min(t.r) - s.l.max(t.l)).max(0.0) * (s.b.min(t.b) - s.t.max(t.t)).max(0.0);
    let area = |e: metrosk_core::geometry::Span| (e.r - e.l) * (e.b - e.t);
    common / (area(s) + area(t) - common)
}

/// What is drawn as an upright rectangle of its own.
fn is_panel(b: &Block) -> bool {
    b.turn == 0.0
        && b.shape == Shape::Rect
        && matches!(b.kind, Kind::Photo | Kind::Mat | Kind::Paper | Kind::Strip)
}

/// How many of the sketch's upright panels were found, and how many of those with their kind.
fn found(truth: &Sketch, read: &Sketch) -> (usize, usize, usize) {
    let panels: Vec<&Block> = truth.blocks.iter().filter(|b| is_panel(b)).collect();
    let best = |b: &Block| {
        read.blocks
            .iter()
            .max_by(|x, y| overlap(b, x).total_cmp(&overlap(b, y)))
            .filter(|o| overlap(b, o) > 0.85)
    };
    let hits: Vec<(&&Block, &Block)> = panels
        .iter()
        .filter_map(|b| best(b).map(|o| (b, o)))
        .collect();
    (
        panels.len(),
        hits.len(),
        hits.iter().filter(|(b, o)| b.kind == o.kind).count(),
    )
}

/// Sketches of plain panels, of one page and of two.
fn plain() -> Vec<Sketch> {
    let text = |pages: u32, blocks: &str| {
        let document = format!(
            r#"{{"format": "metrosk-sketch/1", "unit": "in", "name": "Plain", "canvas": {{"page": {{"w": 12, "h": 12}}, "pages": {pages}}}, "blocks": [{blocks}]}}"#
        );
        Sketch::from_text(&document).unwrap()
    };
    vec![
        text(
            1,
            r#"{"id": "a1", "kind": "paper", "box": {"x": 1, "y": 2, "w": 9.5, "h": 7}},
            {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 4.5, "w": 12, "h": 1.25}, "bleed": ["left", "right"]},
            {"id": "m1", "kind": "mat", "box": {"x": 1.5, "y": 3, "w": 4.25, "h": 5}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1.75, "y": 3.25, "w": 3.75, "h": 4.5}},
            {"id": "p2", "kind": "photo", "box": {"x": 6.5, "y": 3.5, "w": 3, "h": 4}},
            {"id": "j1", "kind": "journal", "box": {"x": 7, "y": 10, "w": 3, "h": 1}}"#,
        ),
        text(
            2,
            r#"{"id": "s1", "kind": "strip", "box": {"x": 0, "y": 8, "w": 24, "h": 1.5}, "bleed": ["left", "right"]},
            {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 5}},
            {"id": "p2", "kind": "photo", "box": {"x": 7, "y": 2, "w": 3, "h": 5}},
            {"id": "m1", "kind": "mat", "box": {"x": 14.75, "y": 2.75, "w": 6.5, "h": 7.5}, "under": "p3"},
            {"id": "p3", "kind": "photo", "box": {"x": 15, "y": 3, "w": 6, "h": 7}}"#,
        ),
    ]
}

#[test]
fn a_clean_diagram_is_read_as_it_was_drawn() {
    for sketch in plain() {
        let read = reading(&picture(&sketch, Style::Clean, 1), &asked(&sketch));
        let (all, hits, kinds) = found(&sketch, &read);
        assert_eq!((hits, kinds), (all, all), "{}", read.to_json());
        assert_eq!(read.canvas, sketch.canvas);
    }
}

#[test]
fn a_pencil_sketch_and_a_photo_of_one_are_read() {
    for sketch in plain() {
        for style in [Style::Pencil, Style::Phone] {
            let read = reading(&picture(&sketch, style, 7), &asked(&sketch));
            let (all, hits, _) = found(&sketch, &read);
            assert_eq!(hits, all, "{style:?}: {}", read.to_json());
        }
    }
}

#[test]
fn what_was_read_keeps_its_order_its_mats_and_its_bleeds() {
    let sketch = &plain()[0];
    let read = reading(&picture(sketch, Style::Clean, 1), &asked(sketch));
    let of = |kind: Kind| read.blocks.iter().position(|b| b.kind == kind).unwrap();
    assert!(
        of(Kind::Paper) < of(Kind::Strip)
            && of(Kind::Strip) < of(Kind::Mat)
            && of(Kind::Mat) < of(Kind::Photo)
    );
    let json = read.to_json();
    let blocks = json["blocks"].as_array().unwrap();
    let strip = blocks.iter().find(|b| b["kind"] == "strip").unwrap();
    assert_eq!(strip["bleed"], serde_json::json!(["left", "right"]));
    let mat = blocks.iter().find(|b| b["kind"] == "mat").unwrap();
    let framed = blocks.iter().find(|b| b["id"] == mat["under"]).unwrap();
    assert_eq!(framed["kind"], "photo");
    assert!(
        blocks
            .iter()
            .all(|b| (0.0..=1.0).contains(&b["sure"].as_f64().unwrap()))
    );
}

#[test]
fn the_demo_is_read_from_its_own_pictures() {
    let (mut all, mut hits) = (0, 0);
    for sketch in metrosk_demo::sketches(SEED).iter().take(5) {
        let Ok(read) = read(
            &picture(sketch, Style::Clean, SEED),
            &asked(sketch),
            &|_| true,
        ) else {
            continue;
        };
        let (n, found, _) = found(sketch, &Sketch::from_json(&read.sketch).unwrap());
        all += n;
        hits += found;
    }
    assert!(hits * 10 >= all * 7, "{hits} of {all}");
}

#[test]
fn corners_that_the_maker_gives_are_taken() {
    let sketch = &plain()[0];
    let photo = picture(sketch, Style::Phone, 3);
    let corners = find_page(&photo, 1);
    let read = reading(
        &photo,
        &ReadRequest {
            corners: Some(corners),
            ..asked(sketch)
        },
    );
    let (all, hits, _) = found(sketch, &read);
    assert_eq!(hits, all);
    let crossed = [corners[1], corners[0], corners[2], corners[3]];
    let refused = metrosk_vision::read(
        &photo,
        &ReadRequest {
            corners: Some(crossed),
            ..asked(sketch)
        },
        &|_| true,
    );
    assert!(matches!(refused, Err(Unreadable::Corners)));
    let upright = straightened(&photo, &corners, (12.0, 12.0), 1, 600).unwrap();
    assert_eq!(upright.dimensions(), (600, 600));
}

#[test]
fn reading_tells_its_stages_and_stops_when_told() {
    let sketch = &plain()[0];
    let pixels = picture(sketch, Style::Clean, 1);
    let seen = std::cell::RefCell::new(Vec::new());
    let stopped = read(&pixels, &asked(sketch), &|stage| {
        seen.borrow_mut().push(stage);
        stage < Stage::Strokes
    });
    assert!(matches!(stopped, Err(Unreadable::Stopped)));
    assert_eq!(
        *seen.borrow(),
        [Stage::Page, Stage::Upright, Stage::Strokes]
    );
}

#[test]
fn an_empty_sheet_has_nothing_to_read() {
    let blank = RgbImage::from_pixel(400, 400, image::Rgb([250, 250, 250]));
    let sketch = &plain()[0];
    assert!(matches!(
        read(&blank, &asked(sketch), &|_| true),
        Err(Unreadable::Nothing)
    ));
}

#[test]
fn what_is_no_picture_is_refused_by_its_bytes() {
    assert!(matches!(
        decode(b"%PDF-1.7 not a picture at all"),
        Err(Unreadable::NotAPicture)
    ));
    assert!(matches!(decode(&[]), Err(Unreadable::NotAPicture)));
    let whole = jpeg(&RgbImage::from_pixel(200, 200, image::Rgb([9, 9, 9])), 90).unwrap();
    assert_eq!(decode(&whole).unwrap().format, "jpeg");
    assert!(matches!(
        decode(&whole[..60]),
        Err(Unreadable::Broken("jpeg", _))
    ));
    let tiny = jpeg(&RgbImage::from_pixel(40, 40, image::Rgb([9, 9, 9])), 90).unwrap();
    assert!(matches!(decode(&tiny), Err(Unreadable::TooSmall(40, 40))));
}

/// A PNG whose header promises more pixels than any picture has: refused before a pixel is decoded.
#[test]
fn a_picture_that_would_not_fit_is_refused_by_its_header() {
    let mut png = Vec::new();
    RgbImage::from_pixel(130, 130, image::Rgb([0, 0, 0]))
        .write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png)
        .unwrap();
    png[16..20].copy_from_slice(&19_000_u32.to_be_bytes());
    png[20..24].copy_from_slice(&19_000_u32.to_be_bytes());
    assert!(decode(&png).is_err());
}

#[test]
fn a_pages_main_colours_are_its_swatches() {
    let mut pixels = RgbImage::from_pixel(200, 200, image::Rgb([240, 230, 210]));
    for (x, y, p) in pixels.enumerate_pixels_mut() {
        if x < 60 {
            *p = image::Rgb([20, 90, 120]);
        } else if y < 40 {
            *p = image::Rgb([200, 40, 60]);
        }
    }
    let found = swatches(&pixels, 5);
    let hex: Vec<String> = found.iter().map(metrosk_vision::Swatch::hex).collect();
    assert_eq!(hex, ["#f0e6d2", "#145a78", "#c8283c"]);
    assert!((found.iter().map(|s| s.share).sum::<f64>() - 1.0).abs() < 1e-9);
}

/// Ticks of an inch.
const PER_INCH: f64 = Length::inches(1, 1).ticks() as f64;

/// A sketch as a coloured diagram, drawn here so that a label and a wash can be in it: the sheet, then each thing over the last.
struct Diagram(RgbImage);

impl Diagram {
    const PER_INCH: f64 = 80.0;

    fn new() -> Diagram {
        let mut sheet = RgbImage::from_pixel(1080, 1080, image::Rgb([255, 255, 255]));
        imageproc::drawing::draw_hollow_rect_mut(
            &mut sheet,
            imageproc::rect::Rect::at(60, 60).of_size(960, 960),
            image::Rgb([60, 60, 60]),
        );
        imageproc::drawing::draw_hollow_rect_mut(
            &mut sheet,
            imageproc::rect::Rect::at(61, 61).of_size(958, 958),
            image::Rgb([60, 60, 60]),
        );
        Diagram(sheet)
    }

    fn shape(mut self, points: &[[f64; 2]], fill: [u8; 3], outlined: bool) -> Diagram {
        let at = |p: &[f64; 2]| {
            imageproc::point::Point::new(
                (60.0 + p[0] * Self::PER_INCH) as i32,
                (60.0 + p[1] * Self::PER_INCH) as i32,
            )
        };
        let corners: Vec<_> = points.iter().map(at).collect();
        imageproc::drawing::draw_polygon_mut(&mut self.0, &corners, image::Rgb(fill));
        for (k, a) in corners.iter().enumerate().filter(|_| outlined) {
            let b = corners[(k + 1) % corners.len()];
            for d in [0.0, 1.0] {
                let ends = [
                    (a.x as f32 + d, a.y as f32 + d),
                    (b.x as f32 + d, b.y as f32 + d),
                ];
                imageproc::drawing::draw_line_segment_mut(
                    &mut self.0,
                    ends[0],
                    ends[1],
                    image::Rgb([70, 70, 70]),
                );
            }
        }
        self
    }
}

fn around_middle(x: f64, y: f64, rx: f64, ry: f64) -> Vec<[f64; 2]> {
    (0..40)
        .map(|k| f64::from(k) * std::f64::consts::TAU / 40.0)
        .map(|t| {
            [
                x + rx * t.cos(),
                y + ry * t.sin() * (1.0 + 0.05 * (3.0 * t).sin()),
            ]
        })
        .collect()
}

fn boxed(x: f64, y: f64, w: f64, h: f64) -> [[f64; 2]; 4] {
    [[x, y], [x + w, y], [x + w, y + h], [x, y + h]]
}

#[test]
fn a_label_with_a_point_is_an_accent_with_its_corners() {
    let drawn = Diagram::new()
        .shape(&boxed(2.0, 2.0, 4.0, 5.0), [160, 160, 160], true)
        .shape(
            &[[2.0, 9.0], [3.25, 9.0], [3.6, 9.4], [3.25, 9.8], [2.0, 9.8]],
            [212, 230, 245],
            true,
        );
    let read = reading(&drawn.0, &asked(&plain()[0]));
    let label = read.blocks.iter().find(|b| b.kind == Kind::Accent).unwrap();
    let Shape::Polygon(points) = &label.shape else {
        panic!("a label with a point is no rectangle: {:?}", label.shape)
    };
    assert_eq!(points.len(), 5);
    let span = label.extent();
    for (got, wanted) in [(span.l, 2.0), (span.t, 9.0), (span.r, 3.6), (span.b, 9.8)] {
        assert!((got / PER_INCH - wanted).abs() < 0.06, "{span:?}");
    }
}

#[test]
fn a_wash_is_read_as_far_as_it_shows_and_a_photograph_has_none() {
    let wash = Diagram::new().shape(&around_middle(6.0, 6.0, 4.0, 4.5), [222, 232, 242], false);
    let drawn = wash
        .shape(&boxed(2.5, 3.0, 4.0, 4.0), [160, 160, 160], true)
        .shape(&boxed(7.0, 3.0, 3.5, 2.5), [160, 160, 160], true);
    let read = reading(&drawn.0, &asked(&plain()[0]));
    let washes: Vec<&Block> = read
        .blocks
        .iter()
        .filter(|b| b.kind == Kind::Wash)
        .collect();
    assert_eq!(washes.len(), 1);
    assert_eq!(read.blocks[0].kind, Kind::Wash, "it lies under everything");
    let span = washes[0].extent();
    for (got, wanted) in [(span.l, 2.0), (span.t, 1.5), (span.r, 10.0), (span.b, 10.5)] {
        assert!((got / PER_INCH - wanted).abs() < 0.4, "{span:?}");
    }
    let sketch = &plain()[0];
    let photographed = reading(&picture(sketch, Style::Phone, 5), &asked(sketch));
    assert!(photographed.blocks.iter().all(|b| b.kind != Kind::Wash));
}

#[test]
fn a_strip_behind_a_photo_is_one_strip() {
    let drawn = Diagram::new()
        .shape(&boxed(0.0, 5.0, 12.0, 1.0), [214, 236, 228], true)
        .shape(&boxed(1.0, 4.0, 2.5, 3.5), [160, 160, 160], true)
        .shape(&boxed(5.5, 3.0, 4.0, 6.0), [160, 160, 160], true);
    let read = reading(&drawn.0, &asked(&plain()[0]));
    let bands: Vec<(Kind, f64)> = read
        .blocks
        .iter()
        .map(|b| (b.kind, (b.extent().r - b.extent().l) / PER_INCH))
        .collect();
    assert_eq!(
        bands
            .iter()
            .filter(|b| b.0 == Kind::Strip && b.1 > 11.9)
            .count(),
        1,
        "{bands:?}"
    );
    assert_eq!(bands.len(), 3, "{bands:?}");
}
