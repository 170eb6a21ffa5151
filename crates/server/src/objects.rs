//! Where pictures' pixels lie: a folder of this machine, a bucket of an S3-compatible store, or, in tests, memory.

use anyhow::Context;
use axum::body::Bytes;
use futures_util::future::ready;
use futures_util::stream::BoxStream;
use futures_util::{StreamExt, TryStreamExt};
use object_store::aws::AmazonS3Builder;
use object_store::buffered::BufWriter;
use object_store::local::LocalFileSystem;
use object_store::memory::InMemory;
use object_store::path::Path;
use object_store::{ObjectStore, ObjectStoreExt};
use std::path::PathBuf;
use std::sync::Arc;
use std::time::{Duration, SystemTime};

/// Where pictures are kept.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub enum Pictures {
    /// In memory, until the server stops: for tests.
    #[default]
    Memory,
    /// In a folder, which is made when it is missing.
    Folder(PathBuf),
    /// In a bucket, `s3://bucket`; the environment's AWS_… variables say how to reach it.
    Bucket(String),
}

impl Pictures {
    /// A folder's path, or `s3://bucket`.
    pub fn at(place: &str) -> Pictures {
        if place.starts_with("s3://") {
            Pictures::Bucket(place.to_owned())
        } else {
            Pictures::Folder(place.into())
        }
    }
}

/// An opened store.
#[derive(Clone, Debug)]
pub(crate) struct Objects(Arc<dyn ObjectStore>);

impl Objects {
    /// Opens a store; a bucket is not asked for anything yet.
    pub(crate) fn open(place: &Pictures) -> anyhow::Result<Objects> {
        // One provider of cryptography for the whole process; that another part has set it already is no failure.
        let _ = rustls::crypto::ring::default_provider().install_default();
        Ok(Objects(match place {
            Pictures::Memory => Arc::new(InMemory::new()),
            Pictures::Folder(folder) => {
                std::fs::create_dir_all(folder).with_context(|| {
                    format!(
                        "the folder for pictures, {}, can't be made",
                        folder.display()
                    )
                })?;
                Arc::new(
                    LocalFileSystem::new_with_prefix(folder).with_context(|| {
                        format!("{} can't be used for pictures", folder.display())
                    })?,
                )
            }
            Pictures::Bucket(url) => {
                let bucket = AmazonS3Builder::from_env().with_url(url.clone()).build();
                Arc::new(bucket.with_context(|| format!("{url} can't be used for pictures; the AWS_… variables say how it is reached"))?)
            }
        }))
    }

    pub(crate) async fn put(&self, name: &str, bytes: Vec<u8>) -> Result<(), object_store::Error> {
        self.0
            .put(&Path::from(name), bytes.into())
            .await
            .map(|_| ())
    }

    /// The object piece by piece, or none where there is none of that name.
    pub(crate) async fn pieces(
        &self,
        name: &str,
    ) -> Result<Option<BoxStream<'static, Result<Bytes, object_store::Error>>>, object_store::Error>
    {
        match self.0.get(&Path::from(name)).await {
            Ok(found) => Ok(Some(found.into_stream())),
            Err(object_store::Error::NotFound { .. }) => Ok(None),
            Err(error) => Err(error),
        }
    }

    /// Takes an object piece by piece; it is there once the writer has been shut down.
    pub(crate) fn writer(&self, name: &str) -> BufWriter {
        BufWriter::new(self.0.clone(), Path::from(name))
    }

    /// Whether there is an object of that name.
    pub(crate) async fn has(&self, name: &str) -> Result<bool, object_store::Error> {
        match self.0.head(&Path::from(name)).await {
            Ok(_) => Ok(true),
            Err(object_store::Error::NotFound { .. }) => Ok(false),
            Err(error) => Err(error),
        }
    }

    /// The names of a folder's objects that were put in longer ago than this.
    pub(crate) fn older(
        &self,
        folder: &str,
        than: Duration,
    ) -> BoxStream<'static, Result<String, object_store::Error>> {
        let before = SystemTime::now() - than;
        self.0
            .list(Some(&Path::from(folder)))
            .try_filter(move |found| ready(SystemTime::from(found.last_modified) <= before))
            .map_ok(|found| found.location.to_string())
            .boxed()
    }

    /// Takes an object out, if there is one of that name.
    pub(crate) async fn delete_if_there(&self, name: &str) -> Result<(), object_store::Error> {
        match self.delete(name).await {
            Err(object_store::Error::NotFound { .. }) => Ok(()),
            other => other,
        }
    }

    /// Takes an object out again.
    pub(crate) async fn delete(&self, name: &str) -> Result<(), object_store::Error> {
        self.0.delete(&Path::from(name)).await
    }

    /// The object, or none where there is none of that name.
    pub(crate) async fn get(&self, name: &str) -> Result<Option<Bytes>, object_store::Error> {
        match self.0.get(&Path::from(name)).await {
            Ok(found) => found.bytes().await.map(Some),
            Err(object_store::Error::NotFound { .. }) => Ok(None),
            Err(error) => Err(error),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn what_is_put_is_there_and_what_is_not_is_none() {
        let folder = std::env::temp_dir().join(format!("metrosk-objects-{}", uuid::Uuid::new_v4()));
        for place in [Pictures::Memory, Pictures::Folder(folder.clone())] {
            let objects = Objects::open(&place).expect("it can be opened");
            objects
                .put("pictures/one/thumb.jpg", vec![1, 2, 3])
                .await
                .expect("it can be written");
            assert_eq!(
                objects
                    .get("pictures/one/thumb.jpg")
                    .await
                    .expect("it can be read")
                    .as_deref(),
                Some(&[1_u8, 2, 3][..])
            );
            assert_eq!(
                objects
                    .get("pictures/two/thumb.jpg")
                    .await
                    .expect("it can be asked for"),
                None
            );
        }
        std::fs::remove_dir_all(folder).expect("the folder was made");
    }

    #[test]
    fn a_bucket_is_told_from_a_folder() {
        assert_eq!(
            Pictures::at("s3://club-pictures"),
            Pictures::Bucket("s3://club-pictures".into())
        );
        assert_eq!(
            Pictures::at("pictures"),
            Pictures::Folder("pictures".into())
        );
        assert!(Objects::open(&Pictures::Bucket("s3://club-pictures".into())).is_ok());
        assert!(Objects::open(&Pictures::Folder("/proc/none/of/this".into())).is_err());
    }
}
