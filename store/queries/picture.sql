-- name: SetPicture :exec
REPLACE INTO drill_picture (club_id, code, stamp, content) VALUES (?, ?, ?, ?);

-- name: RemovePicture :exec
DELETE FROM drill_picture WHERE club_id = ? AND code = ?;

-- name: Picture :one
SELECT content FROM drill_picture WHERE club_id = ? AND code = ?;

-- name: Pictures :many
SELECT code, stamp FROM drill_picture WHERE club_id = ?;

-- name: CountPictures :one
SELECT COUNT(*) FROM drill_picture WHERE club_id = ?;
