# frozen_string_literal: true

# A small production made of generated footage.
module Studio
  module_function

  # @param footage [Symbol] a method of Footage
  # @return [Server::Cut] two shots of greys with a dissolve of two frames between
  def cut(folder, encoding: "acescct", footage: :steps)
    project = Server::Project.create!(name: "Trial", width: 64, height: 36)
    root = Server::MediaRoot.configure(folder)
    clips = %w[one two].map do |name|
      Footage.public_send(footage, folder, name: "#{name}.mkv")
      taken(project, root, "#{name}.mkv", footage).tap { |clip| clip.update!(encoding:, encoding_reason: "assigned by hand") if encoding }
    end
    cut = Server::Cut.create_named!(project, "Cut 1")
    cut.add([{clip: clips[0], position: 0, source_in: 0, record_in: 0, length: 8}])
    cut.add([{clip: clips[1], position: 1, source_in: 2, record_in: 8, length: 6, dissolve: 2}])
    Server::Cut.find(cut.id)
  end

  # A file taken in. What was found out about the same footage once is not asked of ffmpeg again.
  def taken(project, root, path, footage)
    found = (@found ||= {})[footage]
    unless found
      clip = Server::Intake::Taking.new(project, root).call(path)
      @found[footage] = [clip.attributes.except("id", "project_id", "media_root_id", "path", "created_at", "updated_at"), Server::ClipIndex.of(clip)]
      return clip
    end
    attributes, index = found
    clip = Server::Clip.create!(**attributes, project:, media_root: root, path:)
    head, times = Zlib.inflate(index.dump).split("\n", 2)
    here = JSON.parse(head).merge("stamp" => Mordant::Media::FrameIndex.stamp(clip.file))
    Server::ClipIndex.keep(clip, Mordant::Media::FrameIndex.load(Zlib.deflate("#{here.to_json}\n".b << times)))
    clip
  end

  def balance(id = "a", **parameters)
    {"steps" => [{"id" => id, "kind" => "balance", "parameters" => parameters.transform_keys(&:to_s)}]}
  end
end

RSpec::Matchers.define_negated_matcher :not_include, :include
