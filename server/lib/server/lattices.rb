# frozen_string_literal: true

module Server
  # Has frames of an output drawn by ffmpeg alone where a lattice would not show. Whether it
  # would is looked for once for each shot and its grade, and kept with the output.
  class Lattices
    MOST_BITS = 10
    TOO_COARSE = 0 # nodes that are kept where none are enough

    # @param output [Output]
    # @param stretch [Stretch]
    def initialize(output, stretch)
      @output, @stretch, @sheet = output, stretch, output.made_as
    end

    # Nothing is drawn over it, its raster is the project's, no light is measured, and its
    # codes are few enough that a lattice could do.
    #
    # @return [Boolean]
    def possible?
      project = @output.order.cut.project
      !@sheet.format.sequence? && @sheet.format.bits <= MOST_BITS && @sheet.burns.empty? && @sheet.mask.nil? && @sheet.safe.empty? &&
        [@sheet.width, @sheet.height] == [project.width, project.height] && !Mordant::Colour.encoding(@sheet.view.encoding).absolute?
    end

    # A rendering, or a rendition's tones, bend too sharply for a lattice.
    #
    # @return [Boolean] it is likely that one will do
    def likely?
      view = @sheet.view.within(@output.order.cut.project.space)
      possible? && view.rendering.nil? && view.aim.nil?
    end

    # @param writer [Mordant::Deliver::VideoWriter]
    # @param records [Range<Integer>] of which frames are drawn, where they can be
    # @param findings [Mordant::Deliver::Findings] nothing is left to measure of what is drawn
    # @yieldparam done [Integer] frames of the range that there are now
    # @raise [Mordant::MediaError]
    def draw(writer, records, findings)
      return unless possible?

      @stretch.timeline.segments(records.begin, records.size).select { |segment| alone?(segment) }.each do |segment|
        next if @sheet.view.aim && !@output.order.cut.renditions.still?(@output.order.cut.shot(segment.incoming.key))

        standing(segment.incoming).each do |whole|
          range = [whole.begin, segment.first].max...[whole.end, segment.first + segment.length].min
          next unless range.any?

          told = ->(done) { yield range.begin - records.begin + done }
          bulk = bulk(segment.incoming, whole) or next
          writer.draw(bulk, range, frame: segment.incoming.source_at(range.begin), &told)
          range.each { |record| findings.measure(@output.id, record) if writer.has?(record) }
        end
      end
    end

    private

    # One file's frames in order.
    def alone?(segment)
      clip = @output.order.cut.shot(segment.incoming.key).clip
      !segment.outgoing && segment.incoming.plain? && !clip.placeholder? && !clip.paced?
    end

    # Stretches of a shot in which its grade stands still, however it moves in others.
    #
    # @param member [Mordant::Cut::Timeline::Shot]
    # @return [Array<Range<Integer>>] record frames
    def standing(member)
      source = graded(member)
      by = member.record_in - source.start
      source.plan.recipe.stretches(source.start...(source.start + member.length)).filter_map { |frames, moves| (frames.begin + by)...(frames.end + by) unless moves }
    end

    # @return [Mordant::Deliver::Programme::Source]
    def graded(member) = (@graded ||= {})[member.key] ||= @stretch.source(@output.order.cut.shot(member.key), [@sheet.variant]).others.fetch(@sheet.variant)

    # @param member [Mordant::Cut::Timeline::Shot]
    # @param whole [Range<Integer>] record frames of a stretch that stands still
    # @return [Mordant::Deliver::Bulk, nil]
    def bulk(member, whole)
      return unless output_of(whole).pointwise?

      grade = grade_of(member, whole)
      key = (whole.size == member.length) ? member.key.to_s : "#{member.key}:#{whole.begin - member.record_in}"
      kept = @output.lattices[key]
      nodes = kept["nodes"] if kept && kept["grade"] == grade
      return if nodes == TOO_COARSE
      return made(member, whole, size: nodes) if nodes

      found = made(member, whole)
      keep(key, {"grade" => grade, "nodes" => found.fits? ? found.size : TOO_COARSE})
      found if found.fits?
    rescue Mordant::MediaError
      nil # the exact way tells what is wrong with it, or leaves frames out as the order says
    end

    # @return [String] another one when anything changes that its pictures depend on
    def grade_of(member, whole)
      shot, project = @output.order.cut.shot(member.key), @output.order.cut.project
      Pictures::Depends.digest(Pictures::Depends.grade(project, shot.delivered(*@sheet.variant), shot.clip.source_encoding), Pictures::Depends.view(view(whole)), member.source_at(whole.begin), whole.size)[0, 12]
    end

    # @return [Mordant::Grade::View] of the sheet, as it is there
    def view(whole) = @stretch.bound(@sheet.view, whole.begin)

    # @return [Mordant::Deliver::Programme::Source] with the grade that stands through the stretch
    def still(member, whole)
      source = graded(member)
      Mordant::Deliver::Programme::Source.new(reader: source.reader, plan: source.plan_at(whole.begin - member.record_in))
    end

    # @return [Mordant::Grade::Output]
    def output_of(whole) = @output.order.cut.project.output(view(whole))

    def made(member, whole, size: nil)
      Mordant::Deliver::Bulk.new(source: still(member, whole), output: output_of(whole), bits: @sheet.format.bits, first: member.source_at(whole.begin), count: whole.size, size:)
    end

    # Another worker may have found out of other shots meanwhile.
    def keep(key, found)
      Output.where(id: @output.id).update_all(["lattices = lattices || ?::jsonb", {key => found}.to_json])
      @output.lattices[key] = found
    end
  end
end
