# frozen_string_literal: true

module Mordant
  module CommandLine
    # Follows the shape of a step through a shot, and prints how it moves.
    module Track
      USAGE = "track --recipe FILE --step ID --from ID [--with position|similarity|corners] IN\n" \
              "    how the step's shape moves from the first frame on, as JSON: x and y in heights of the picture, turn in degrees"

      module_function

      def call(arguments, output:, **)
        options, rest = CommandLine.options_and("track", arguments, needed: %i[recipe step from], others: %i[with])
        raise Usage, "track needs one IN" unless rest.one?

        path = path(rest.first, **options)
        frames = path.span.map { |frame| {frame:, **path.motion(frame).transform_values { |value| value.round(6) }, confidence: path.sure(frame)} }
        output.puts(JSON.generate(frames:, lost: path.lost))
      end

      # @return [Mordant::Track::Path]
      def path(source, recipe:, step:, from:, with: "position")
        pictures = Pictures.new(source)
        plans = Hash.new { |made, part| made[part] = Mordant::Grade::Plan.new(recipe: part, source: pictures.encoding(from)) }
        document = Grade.read_recipe(recipe)
        run = Mordant::Track::Run.new(document, step:, kind: with) { |part| plans[part] }
        run.path(Enumerator.new { |found| pictures.each(window: document.before(step).window) { |codes, around, index, _| found.yield(index, Mordant::Grade::Moment.of(codes, around:)) } })
      end
    end
  end
end
