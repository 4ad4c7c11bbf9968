-- Mabon Inglebrook leaves the cooperative. What would go with him, and what is still owed?
DELETE FROM keeper WHERE keeper_id = 'K-008';
