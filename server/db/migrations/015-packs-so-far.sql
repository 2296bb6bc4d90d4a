-- What is written of a pack that nobody has said whole. A new pack once came as 1S 300 mAh LiPo, whatever it was: those are asked about.
ALTER TABLE lines ADD COLUMN pack_so_far TEXT CHECK (pack_so_far IS NULL OR json_valid(pack_so_far));
ALTER TABLE parts ADD COLUMN pack_so_far TEXT CHECK (pack_so_far IS NULL OR json_valid(pack_so_far));

UPDATE lines
SET pack_so_far = (
  SELECT json_object('label', p.label, 'cells', p.cells, 'chemistry', p.chemistry, 'capacityMah', p.capacity_mah)
  FROM packs p
  WHERE p.build_id = lines.build_id AND p.line_id = lines.id)
WHERE EXISTS (
  SELECT 1 FROM packs p
  WHERE p.build_id = lines.build_id AND p.line_id = lines.id
    AND p.cells = 1 AND p.chemistry = 'LiPo' AND p.capacity_mah = 300 AND p.c_rating IS NULL AND p.plug = '');
DELETE FROM packs WHERE cells = 1 AND chemistry = 'LiPo' AND capacity_mah = 300 AND c_rating IS NULL AND plug = '';

UPDATE parts
SET pack_so_far = pack, pack = NULL
WHERE json_extract(pack, '$.cells') = 1 AND json_extract(pack, '$.chemistry') = 'LiPo' AND json_extract(pack, '$.capacityMah') = 300
  AND json_extract(pack, '$.cRating') IS NULL AND json_extract(pack, '$.plug') = '';
