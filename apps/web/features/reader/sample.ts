/** A recipe to try the reader with. */
export const sample = `Millet and honey muffins

1 1/2 cups millet flour
3/4 cup tapioca starch
1 tsp xanthan gum
2 tsp baking powder
1/2 tsp bicarbonate of soda
a pinch of salt
2 large eggs
1 cup (240 ml) buttermilk
1/3 cup sunflower oil
1/2 cup honey

Bake at 190 °C (375 °F) for 18 to 22 minutes in a 12-hole muffin tin.`;
