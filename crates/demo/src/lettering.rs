//! Words in real letters.

use image::{GrayImage, Luma};
use resvg::tiny_skia::{Pixmap, Transform};
use resvg::usvg::{Node, Options, Tree, fontdb};
use std::sync::Arc;

/// A word as large as a box of so many pixels lets it be, from its left top corner: 255 where a letter is.
pub(crate) fn lettering(word: &str, (width, height): (f64, f64)) -> GrayImage {
    let blank = || GrayImage::new(width.max(1.0) as u32, height.max(1.0) as u32);
    let mut fonts = fontdb::Database::new();
    // The letters of the house, under the SIL Open Font License.
    fonts.load_font_data(include_bytes!("../../core/fonts/BricolageGrotesque-Bold.ttf").to_vec());
    let options = Options {
        fontdb: Arc::new(fonts),
        font_family: "Bricolage Grotesque".to_owned(),
        ..Options::default()
    };
    let svg = format!(
        r#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 200"><text y="150" font-size="100">{word}</text></svg>"#
    );
    let Ok(tree) = Tree::from_str(&svg, &options) else {
        return blank();
    };
    // Of the letters' own outlines: a text's box has room for letters that go higher and lower.
    let ink = tree.root().children().first().map_or_else(
        || tree.root().abs_bounding_box(),
        |node| match node {
            Node::Text(text) => text.flattened().abs_bounding_box(),
            other => other.abs_bounding_box(),
        },
    );
    let (w, h) = (width.max(1.0) as u32, height.max(1.0) as u32);
    let Some(mut pixmap) = Pixmap::new(w, h) else {
        return blank();
    };
    let scale = (w as f32 / ink.width()).min(h as f32 / ink.height());
    let place = Transform::from_translate(-ink.left(), -ink.top()).post_scale(scale, scale);
    resvg::render(&tree, place, &mut pixmap.as_mut());
    let ink = |x: u32, y: u32| pixmap.pixel(x, y).map_or(0, |p| p.alpha());
    GrayImage::from_fn(w, h, |x, y| Luma([ink(x, y)]))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_word_fills_its_place_with_letters() {
        let letters = lettering("LOW SUN", (400.0, 90.0));
        let ink = letters.pixels().filter(|p| p.0[0] > 127).count();
        // A bold word covers a quarter to three quarters of the box around it, and reaches from one side of it to the other.
        assert!((3_000..27_000).contains(&ink), "{ink}");
        let reaches = |x: u32| (0..90).any(|y| letters.get_pixel(x, y).0[0] > 127);
        assert!(reaches(4) || reaches(8));
        let last = (0..400).rev().find(|x| reaches(*x)).unwrap_or(0);
        let lowest = (0..90)
            .rev()
            .find(|y| (0..400).any(|x| letters.get_pixel(x, *y).0[0] > 127))
            .unwrap_or(0);
        assert!(last > 390 || lowest > 84, "{last} {lowest}");
    }
}
