# frozen_string_literal: true

module Mordant
  module CommandLine
    # Grades a still, or every frame of a sequence or a video, into stills.
    module Grade
      USAGE = "grade --recipe FILE --from ID --to ID [--rendering ID] IN OUT\n" \
              "    IN: a still (png, tif, jpg, dpx, exr), a video, or a sequence by a pattern (in.%04d.png);\n" \
              "    OUT: png or tif of 16 bits, dpx or exr, by a pattern for more than one. Keys count from the first frame"

      module_function

      def call(arguments, **)
        source, target, options = CommandLine.pictures_and("grade", arguments, needed: %i[recipe from to], others: %i[rendering])
        run(source, target, **options)
      end

      def run(source, target, recipe:, from:, to:, rendering: nil)
        clip = Film::Speckle.seed(File.basename(source, ".*"))
        document = read_recipe(recipe).sown { |index| [clip, index] }
        output = Mordant::Grade::Output.new(view: Mordant::Grade::View.new(encoding: to, rendering:))
        pictures = Pictures.new(source, target)
        plan = Mordant::Grade::Plan.new(recipe: document, source: pictures.encoding(from))
        pictures.each(window: document.window) { |codes, around, index, path| pictures.write(output.run(plan.at(index).run(codes, around:)), path) }
      end

      # @return [Mordant::Grade::Recipe]
      # @raise [ParameterError] with the file's name
      def read_recipe(path)
        Mordant::Grade::Recipe.from_json(File.read(path))
      rescue ParameterError => e
        raise ParameterError.new(path: "#{path}: #{e.path}", expected: e.expected, found: e.found)
      end
    end
  end
end
